// What this browser remembers about how its user likes things.
import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from 'react';
import type { Light } from './theme.ts';

interface Settings {
  readonly light: Light;
  readonly ledgerOpen: boolean;
  /** Who works here, for runs; empty until someone says so. */
  readonly person: string;
}

interface SettingsControl extends Settings {
  readonly change: (part: Partial<Settings>) => void;
}

const KEY = 'lastmark.settings';
/** Below this the ledger starts folded, to leave the work surface its room. */
const WIDE = 1180;
const Context = createContext<SettingsControl | null>(null);

function remembered(): Settings {
  const dim = window.matchMedia('(prefers-color-scheme: dark)').matches;
  const settings: Settings = { light: dim ? 'dim' : 'light', ledgerOpen: window.innerWidth >= WIDE, person: '' };
  try {
    return { ...settings, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Settings>) };
  } catch {
    return settings;
  }
}

export function SettingsProvider({ children }: { readonly children: ReactNode }) {
  const [settings, setSettings] = useState(remembered);
  useEffect(() => localStorage.setItem(KEY, JSON.stringify(settings)), [settings]);
  const value = useMemo<SettingsControl>(
    () => ({ ...settings, change: (part) => setSettings((before) => ({ ...before, ...part })) }),
    [settings],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

export function useSettings(): SettingsControl {
  const settings = useContext(Context);
  if (!settings) throw new Error('Settings are missing above this part.');
  return settings;
}
