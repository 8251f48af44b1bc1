// The port face as bars: what is promised there at most as an outline, what is proven of it as fill.
import { formatPlain } from '@lastmark/core/quantity';
import { portsAtAGlance } from '@lastmark/core/verdict';
import Box from '@mui/material/Box';
import { PortFace } from '../../parts/PortFace.tsx';
import { isLoud, StateMark } from '../../parts/StateMark.tsx';
import { useSample } from '../../state/sample.tsx';

export function PortBars() {
  const { dossier, verdict } = useSample();
  const { ports } = dossier.sample.model;
  const all = portsAtAGlance({ sample: dossier.sample.model, claims: dossier.claims }, verdict);
  const most = Math.max(...all.map(({ promised }) => promised ?? 0));
  if (ports.length === 0) return null;
  return (
    <Box component="section" aria-label="Ports">
      <PortFace ports={ports} width={300} />
      <Box component="ul" aria-label="Promised and proven at each port" sx={{ listStyle: 'none', m: 0, mt: 1, p: 0 }}>
        {all.map(({ port, promised, proven, state }) => (
          <Box
            component="li"
            key={port}
            sx={{ display: 'grid', gridTemplateColumns: '36px 120px 1fr', gap: 1, alignItems: 'center', minHeight: 28 }}
          >
            <strong>{port}</strong>
            {promised === null ? (
              <span />
            ) : (
              <Box sx={{ height: 12 }} style={{ width: `${(promised / most) * 100}%` }}>
                <Box
                  sx={{
                    height: '100%',
                    boxSizing: 'border-box',
                    border: 1.5,
                    borderColor: state && isLoud(state) ? 'error.main' : 'text.primary',
                  }}
                >
                  <Box
                    sx={{ height: '100%', bgcolor: 'primary.main' }}
                    style={{ width: `${((proven ?? 0) / promised) * 100}%` }}
                  />
                </Box>
              </Box>
            )}
            <Box sx={{ fontSize: 14, display: 'flex', flexWrap: 'wrap', columnGap: 0.75, alignItems: 'center' }}>
              {promised === null || state === null ? (
                <Box component="span" sx={{ color: 'text.secondary' }}>
                  nothing promised
                </Box>
              ) : (
                <>
                  {formatPlain(promised, 'power')} <StateMark state={state} />
                  {proven !== null && proven < promised && <span>{formatPlain(proven, 'power')} proven</span>}
                </>
              )}
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
