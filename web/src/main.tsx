// Starts the browser side.
import '@fontsource/atkinson-hyperlegible-next/latin-400.css';
import '@fontsource/atkinson-hyperlegible-next/latin-600.css';
import '@fontsource/atkinson-hyperlegible-next/latin-ext-400.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './app/App.tsx';

const root = document.getElementById('root');
if (!root) throw new Error('The page has no root.');
/** So long a page without its letters would be worse than letters that change. */
const PATIENCE_MILLISECONDS = 400;
const FAMILY = '16px "Atkinson Hyperlegible Next"';
const letters = Promise.allSettled([document.fonts.load(`400 ${FAMILY}`), document.fonts.load(`600 ${FAMILY}`)]);
const patience = new Promise((done) => setTimeout(done, PATIENCE_MILLISECONDS));

// Drawn with other letters first, every line would move when these come.
void Promise.race([letters, patience]).then(() =>
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  ),
);
