// Providers and routes. Everything beyond the shelf is fetched when first visited.
import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { QueryClientProvider } from '@tanstack/react-query';
import { useEffect, useMemo } from 'react';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { queryClient } from '../api/queries.ts';
import { BASE, PRACTISING } from '../api/world.ts';
import { ShelfPage } from '../shelf/ShelfPage.tsx';
import { NoticesProvider } from '../state/notices.tsx';
import { SettingsProvider, useSettings } from '../state/settings.tsx';
import { makeTheme } from '../state/theme.ts';
import { STATIONS } from '../stations/registry.ts';
import { Door } from './Door.tsx';
import { FailedPage, MissingPage } from './FailedPage.tsx';
import { Frame } from './Frame.tsx';

const router = createBrowserRouter(
  [
    {
      // For a phone: nothing around it.
      path: 'photo/:tag',
      errorElement: <FailedPage />,
      lazy: async () => ({ Component: (await import('../phone/PhonePage.tsx')).PhonePage }),
    },
    {
      path: 'join',
      errorElement: <FailedPage />,
      lazy: async () => ({ Component: (await import('../people/JoinPage.tsx')).JoinPage }),
    },
    {
      element: <Frame />,
      errorElement: <FailedPage />,
      children: [
        {
          errorElement: <FailedPage />,
          children: [
            { index: true, element: <ShelfPage /> },
            {
              path: 'samples/new',
              lazy: async () => ({ Component: (await import('../stations/intake/NewSamplePage.tsx')).NewSamplePage }),
            },
            {
              path: 'samples/:sampleId',
              lazy: async () => ({ Component: (await import('./SampleLayout.tsx')).SampleLayout }),
              children: [
                { index: true, element: <Navigate to="intake" replace /> },
                ...STATIONS.map(({ id, page }) => ({
                  path: id,
                  errorElement: <FailedPage />,
                  lazy: async () => ({ Component: await page() }),
                })),
                { path: '*', element: <MissingPage /> },
              ],
            },
            {
              path: 'run-sheets',
              lazy: async () => ({ Component: (await import('../run-sheets/RunSheetsPage.tsx')).RunSheetsPage }),
            },
            {
              path: 'run-sheets/:sheetId',
              lazy: async () => ({ Component: (await import('../run-sheets/SheetPage.tsx')).SheetPage }),
            },
            {
              path: 'runs/:runId',
              lazy: async () => ({ Component: (await import('../run-sheets/RunPage.tsx')).RunPage }),
            },
            {
              path: 'reports',
              lazy: async () => ({ Component: (await import('../reports/ReportsPage.tsx')).ReportsPage }),
            },
            {
              path: 'trials',
              lazy: async () => ({ Component: (await import('../trials/TrialsPage.tsx')).TrialsPage }),
            },
            {
              path: 'trials/:trialId',
              lazy: async () => ({ Component: (await import('../trials/TrialPage.tsx')).TrialPage }),
            },
            {
              path: 'compare',
              lazy: async () => ({ Component: (await import('../compare/CompareListPage.tsx')).CompareListPage }),
            },
            {
              path: 'compare/:comparisonId',
              lazy: async () => ({ Component: (await import('../compare/ComparePage.tsx')).ComparePage }),
            },
            { path: 'bench', lazy: async () => ({ Component: (await import('../bench/BenchPage.tsx')).BenchPage }) },
            { path: 'day', lazy: async () => ({ Component: (await import('../day/DayPage.tsx')).DayPage }) },
            { path: 'today', lazy: async () => ({ Component: (await import('../today/TodayPage.tsx')).TodayPage }) },
            ...(PRACTISING
              ? [
                  {
                    path: 'state',
                    lazy: async () => ({ Component: (await import('../practice/StatePage.tsx')).StatePage }),
                  },
                ]
              : [
                  {
                    path: 'drills',
                    lazy: async () => ({ Component: (await import('../practice/DrillsPage.tsx')).DrillsPage }),
                  },
                  {
                    path: 'drills/:drillId',
                    lazy: async () => ({ Component: (await import('../practice/DrillPage.tsx')).DrillPage }),
                  },
                ]),
            {
              path: 'methods',
              lazy: async () => ({ Component: (await import('../methods/MethodsPage.tsx')).MethodsPage }),
            },
            { path: 'log', lazy: async () => ({ Component: (await import('../log/LogPage.tsx')).LogPage }) },
            {
              path: 'account',
              lazy: async () => ({ Component: (await import('../people/AccountPage.tsx')).AccountPage }),
            },
            {
              path: 'people',
              lazy: async () => ({ Component: (await import('../people/PeoplePage.tsx')).PeoplePage }),
            },
            { path: 'rules', lazy: async () => ({ Component: (await import('../rules/RulesPage.tsx')).RulesPage }) },
            { path: '*', element: <MissingPage /> },
          ],
        },
      ],
    },
  ],
  { basename: BASE || '/' },
);

function Themed() {
  const { light } = useSettings();
  const theme = useMemo(() => makeTheme(light), [light]);
  useEffect(() => {
    document.documentElement.dataset.theme = light;
  }, [light]);
  return (
    <ThemeProvider theme={theme}>
      <CssBaseline />
      <NoticesProvider>
        <RouterProvider router={router} />
        <Door />
      </NoticesProvider>
    </ThemeProvider>
  );
}

/** Styles are written under the name the server gave this page; under no other are they shown. */
const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.content;
const styles = createCache({ key: 'css', ...(nonce ? { nonce } : {}) });

export function App() {
  return (
    <CacheProvider value={styles}>
      <QueryClientProvider client={queryClient}>
        <SettingsProvider>
          <Themed />
        </SettingsProvider>
      </QueryClientProvider>
    </CacheProvider>
  );
}
