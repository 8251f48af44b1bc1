// What a report as HTML can do by itself: sort its tables, and look into its plots. It stands in the file as it is written here, told by its hash.

/** Sorts a table by a column, by number where both are one. */
const SORT = `
for (const button of document.querySelectorAll('th button')) button.addEventListener('click', () => {
  const head = button.parentElement, row = head.parentElement, body = row.closest('table').tBodies[0];
  const column = [...row.children].indexOf(head), down = head.getAttribute('aria-sort') === 'ascending';
  for (const one of row.children) one.removeAttribute('aria-sort');
  head.setAttribute('aria-sort', down ? 'descending' : 'ascending');
  const key = (of) => of.children[column].dataset.key ?? of.children[column].textContent.trim();
  const rows = [...body.rows].sort((a, b) => {
    const [x, y] = [key(a), key(b)], [n, m] = [x, y].map((one) => parseFloat(one.replace(',', '.')));
    return (Number.isNaN(n) || Number.isNaN(m) ? x.localeCompare(y) : n - m) * (down ? -1 : 1);
  });
  for (const one of rows) body.append(one);
});`;

/**
 * Looks into a plot: dragging over a stretch, + and −, arrows, 0 for all of it; pointing says the nearest point.
 * Lines are drawn anew from where they lay, marks only move: nothing is squeezed.
 */
const LOOK_INTO = `
const NAMES = document.documentElement.lang === 'de' ? { all: 'Alles', closer: 'Näher', wider: 'Weiter' } : { all: 'All', closer: 'Closer', wider: 'Wider' };
const number = (value, digits) => value.toLocaleString(document.documentElement.lang, { maximumSignificantDigits: digits, useGrouping: false }).replace(/^-/, '\u2212');
for (const svg of document.querySelectorAll('svg[data-across]')) {
  const [low, high, left, right] = svg.dataset.across.split(' ').map(Number);
  const [least, most, bottom, top] = svg.dataset.up.split(' ').map(Number);
  const inside = svg.querySelector('[data-inside]'), ticks = svg.querySelector('[data-ticks]');
  const figure = svg.closest('figure'), template = ticks.querySelector('text');
  let from = low, to = high;
  const valueAt = (px) => from + ((px - left) / (right - left)) * (to - from);
  const moved = (px) => left + ((low + ((px - left) / (right - left)) * (high - low) - from) / (to - from)) * (right - left);
  const POINT = /([ML])(-?[0-9.]+) (-?[0-9.]+)/g;
  const parts = [...inside.children].map((element) => {
    if (element.getAttribute('fill') === 'none') return { element, d: element.getAttribute('d') };
    const box = element.getBBox();
    return { element, at: element.dataset.at ? Number(element.dataset.at) : box.x + box.width / 2, y: box.y + box.height / 2 };
  });
  const points = parts.flatMap((one) => one.d === undefined
    ? (one.element.dataset.at || one.element.tagName === 'line' ? [] : [[one.at, one.y]])
    : [...one.d.matchAll(POINT)].map((found) => [Number(found[2]), Number(found[3])]));
  const draw = () => {
    for (const { element, d, at } of parts)
      if (d !== undefined) element.setAttribute('d', d.replace(POINT, (_, pen, px, py) => pen + moved(Number(px)).toFixed(2) + ' ' + py));
      else element.setAttribute('transform', 'translate(' + (moved(at) - at).toFixed(2) + ' 0)');
    const rough = (to - from) / 7, power = 10 ** Math.floor(Math.log10(rough));
    const step = [1, 2, 5, 10].map((one) => one * power).find((one) => one >= rough * (1 - 1e-9));
    const decimals = Math.min(12, Math.max(0, -Math.floor(Math.log10(step) + 1e-9)));
    const drawn = [];
    for (let tick = Math.ceil(from / step - 1e-9); tick * step <= to + step * 1e-9; tick += 1) {
      const px = left + ((tick * step - from) / (to - from)) * (right - left);
      const mark = document.createElementNS(svg.namespaceURI, 'line');
      for (const [name, value] of Object.entries({ x1: px, x2: px, y1: bottom, y2: bottom + 3, stroke: '#4a5952' })) mark.setAttribute(name, value);
      const words = template ? template.cloneNode(true) : document.createElementNS(svg.namespaceURI, 'text');
      words.setAttribute('x', px);
      words.textContent = (tick * step).toLocaleString(document.documentElement.lang, { minimumFractionDigits: decimals, maximumFractionDigits: decimals, useGrouping: false }).replace(/^-/, '\u2212');
      drawn.push(mark, words);
    }
    ticks.replaceChildren(...drawn);
    all.disabled = wider.disabled = from === low && to === high;
  };
  const look = (a, b) => {
    const width = Math.min(high - low, Math.max((high - low) / 1000, b - a));
    from = Math.min(Math.max(low, (a + b - width) / 2), high - width);
    to = from + width;
    draw();
  };
  const scale = (by) => look((from + to) / 2 - ((to - from) / 2) * by, (from + to) / 2 + ((to - from) / 2) * by);
  const bar = document.createElement('div');
  bar.className = 'into';
  const button = (name, press) => {
    const one = document.createElement('button');
    one.type = 'button';
    one.textContent = name;
    one.addEventListener('click', press);
    bar.append(one);
    return one;
  };
  button(NAMES.closer, () => scale(0.5));
  const wider = button(NAMES.wider, () => scale(2));
  const all = button(NAMES.all, () => look(low, high));
  const told = document.createElement('output');
  bar.append(told);
  svg.after(bar);
  svg.setAttribute('tabindex', '0');
  const KEYS = { '+': () => scale(0.5), '-': () => scale(2), 0: () => look(low, high), ArrowLeft: () => look(from - (to - from) / 4, to - (to - from) / 4), ArrowRight: () => look(from + (to - from) / 4, to + (to - from) / 4) };
  svg.addEventListener('keydown', (event) => {
    const act = KEYS[event.key];
    if (!act || event.ctrlKey || event.altKey || event.metaKey) return;
    event.preventDefault();
    act();
  });
  const pxOf = (event) => Math.min(right, Math.max(left, ((event.clientX - svg.getBoundingClientRect().left) / svg.getBoundingClientRect().width) * svg.viewBox.baseVal.width));
  const pyOf = (event) => ((event.clientY - svg.getBoundingClientRect().top) / svg.getBoundingClientRect().height) * svg.viewBox.baseVal.height;
  const stretch = document.createElementNS(svg.namespaceURI, 'rect');
  for (const [name, value] of Object.entries({ y: top, height: bottom - top, fill: '#0b5a54', opacity: 0.15 })) stretch.setAttribute(name, value);
  let began = null;
  svg.addEventListener('pointerdown', (event) => {
    if (event.button !== 0 || event.pointerType === 'touch') return;
    began = pxOf(event);
    svg.setPointerCapture(event.pointerId);
  });
  svg.addEventListener('pointermove', (event) => {
    const [px, py] = [pxOf(event), pyOf(event)];
    if (began !== null) {
      stretch.setAttribute('x', Math.min(began, px));
      stretch.setAttribute('width', Math.abs(px - began));
      svg.append(stretch);
      return;
    }
    let nearest = null;
    for (const [x, y] of points) {
      const far = (moved(x) - px) ** 2 + (y - py) ** 2;
      if (moved(x) >= left - 1 && moved(x) <= right + 1 && (nearest === null || far < nearest.far)) nearest = { far, x, y };
    }
    if (nearest) told.textContent = number(low + ((nearest.x - left) / (right - left)) * (high - low), 5) + ' \u2192 ' + number(least + ((bottom - nearest.y) / (bottom - top)) * (most - least), 4);
  });
  const end = (event) => {
    if (began === null) return;
    const px = pxOf(event);
    if (event.type === 'pointerup' && Math.abs(px - began) > 4) look(valueAt(Math.min(began, px)), valueAt(Math.max(began, px)));
    began = null;
    stretch.remove();
  };
  svg.addEventListener('pointerup', end);
  svg.addEventListener('pointercancel', end);
  draw();
}`;

export const PAGE_SCRIPT = `${SORT}${LOOK_INTO}
`;
