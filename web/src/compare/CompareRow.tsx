// A sample of the set as a row. Drawn anew while a range is moved: its looks are the table's, given once for all rows.
import type { SetMember } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import type { Theme } from '@mui/material/styles';
import type { SystemStyleObject } from '@mui/system';
import { memo } from 'react';
import { Link } from 'react-router';
import { type MeasureView, sampleTitle, words } from './views.ts';

export const ROW = 38;
/** Width of the names. */
export const NAME = 250;

/** How rows look inside what holds them. @param template widths of the columns */
export const rowStyle = (template: string): SystemStyleObject<Theme> => ({
  '& [role=row]': {
    position: 'absolute',
    left: 0,
    right: 0,
    height: ROW,
    fontSize: 14,
    borderBottom: 1,
    borderColor: 'divider',
    bgcolor: 'background.paper',
  },
  '& [role=row].head': { px: 1, pt: 1, fontWeight: 700, bgcolor: 'ground' },
  '& [role=row].sample': { display: 'grid', gridTemplateColumns: template, alignItems: 'center', cursor: 'pointer' },
  '& [role=row][aria-selected=true]': { bgcolor: 'ground' },
  '& .sample [role=cell]': { px: 1, minWidth: 0, whiteSpace: 'nowrap', overflow: 'hidden' },
  '& .sample [role=cell].name': { position: 'sticky', left: 0, bgcolor: 'inherit', textOverflow: 'ellipsis' },
  '& .sample [role=cell].pinned': {
    position: 'sticky',
    left: NAME,
    bgcolor: 'inherit',
    height: ROW - 1,
    lineHeight: `${ROW}px`,
  },
  '& .sample .none': { color: 'text.secondary', fontSize: 13 },
  '& .sample a': { color: 'text.primary', display: 'inline-block', minHeight: 24, lineHeight: '24px' },
});

interface Props {
  readonly member: SetMember;
  readonly views: readonly MeasureView[];
  /** Its number among all rows, the head being the first. */
  readonly row: number;
  /** From the top of the table, px. */
  readonly top: number;
  readonly marked: boolean;
  readonly pinned: string | null;
  readonly onMark: (id: string) => void;
}

/** Its cells stay while only its place changes. */
const Cells = memo(function Cells({ member, views, pinned }: Pick<Props, 'member' | 'views' | 'pinned'>) {
  const title = sampleTitle(member);
  return (
    <>
      <Box role="cell" className="name">
        <Link to={`/samples/${member.id}/verdict`} title={title}>
          {title}
        </Link>
      </Box>
      {views.map((view) => {
        const value = view.byId.get(member.id);
        return (
          <Box key={view.id} role="cell" className={view.id === pinned ? 'pinned' : undefined}>
            {value ? words(view, value) : <span className="none">not measured</span>}
          </Box>
        );
      })}
    </>
  );
});

export function CompareRow({ member, views, row, top, marked, pinned, onMark }: Props) {
  return (
    <Box
      role="row"
      className="sample"
      aria-rowindex={row}
      aria-selected={marked}
      onClick={() => onMark(member.id)}
      style={{ transform: `translateY(${top}px)` }}
    >
      <Cells member={member} views={views} pinned={pinned} />
    </Box>
  );
}
