// What this browser remembers about how its user likes things.
import type { Language } from '@lastmark/core/conclusion';
import useMediaQuery from '@mui/material/useMediaQuery';
import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from 'react';
import type { Light } from './theme.ts';

interface Settings {
  /** null until someone chose: as the device has it. */
  readonly light: Light | null;
  readonly ledgerOpen: boolean;
  /** Who works here, for runs; empty until someone says so. */
  readonly person: string;
  /** When what is typed was taken, as typed; empty for now. Forgotten with the page. */
  readonly typedAs: string;
  /** What conclusions and reports are written in. */
  readonly reportLanguage: Language;
}

interface SettingsControl extends Omit<Settings, 'light'> {
  readonly light: Light;
  readonly change: (part: Partial<Settings>) => void;
}

const KEY = 'lastmark.settings';
/** Below this the ledger starts folded, to leave the work surface its room. */
const WIDE = 1180;
const Context = createContext<SettingsControl | null>(null);

function remembered(): Settings {
  const settings: Settings = {
    light: null,
    ledgerOpen: window.innerWidth >= WIDE,
    person: '',
    typedAs: '',
    reportLanguage: 'en',
  };
  try {
    return { ...settings, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Settings>) };
  } catch {
    return settings;
  }
}

export function SettingsProvider({ children }: { readonly children: ReactNode }) {
  const [settings, setSettings] = useState(remembered);
  const asDevice: Light = useMediaQuery('(prefers-color-scheme: dark)', { noSsr: true }) ? 'dim' : 'light';
  useEffect(() => {
    const { typedAs: _, ...kept } = settings;
    localStorage.setItem(KEY, JSON.stringify(kept));
  }, [settings]);
  const value = useMemo<SettingsControl>(
    () => ({
      ...settings,
      light: settings.light ?? asDevice,
      change: (part) => setSettings((before) => ({ ...before, ...part })),
    }),
    [settings, asDevice],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

export function useSettings(): SettingsControl {
  const settings = useContext(Context);
  if (!settings) throw new Error('Settings are missing above this part.');
  return settings;
}
