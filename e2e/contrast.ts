// Contrast of every text with the ground it stands on, by its own and its ancestors' colours: WCAG 2.2, 1.4.3.
import type { Page } from '@playwright/test';

/** Runs in the page. @returns what is too faint, a sentence each */
function faint(): string[] {
  type Colour = readonly [number, number, number, number];
  const pen = document.createElement('canvas').getContext('2d', { willReadFrequently: true });
  const read = new Map<string, Colour>();
  /** Any colour CSS can write, as it comes out on a screen. */
  const colour = (text: string): Colour => {
    const known = read.get(text);
    if (known) return known;
    if (!pen) throw new Error('no canvas to read colours with');
    pen.clearRect(0, 0, 1, 1);
    pen.fillStyle = text;
    pen.fillRect(0, 0, 1, 1);
    const [r = 0, g = 0, b = 0, a = 0] = pen.getImageData(0, 0, 1, 1).data;
    const own: Colour = [r, g, b, a / 255];
    read.set(text, own);
    return own;
  };
  const over = ([r, g, b, a]: Colour, [R, G, B]: Colour): Colour => [
    r * a + R * (1 - a),
    g * a + G * (1 - a),
    b * a + B * (1 - a),
    1,
  ];
  const grounds = new Map<Element, Colour | null>();
  /** What a text of an element stands on; null where a picture is below, which only a person can judge. */
  const groundOf = (element: Element): Colour | null => {
    const known = grounds.get(element);
    if (known !== undefined) return known;
    const { backgroundColor, backgroundImage } = getComputedStyle(element);
    const below: Colour | null = element.parentElement ? groundOf(element.parentElement) : [255, 255, 255, 1];
    const own = colour(backgroundColor);
    const picture = backgroundImage !== 'none' && own[3] < 1;
    const ground = picture || (below === null && own[3] < 1) ? null : over(own, below ?? own);
    grounds.set(element, ground);
    return ground;
  };
  const light = ([r, g, b]: Colour): number => {
    const [R = 0, G = 0, B = 0] = [r, g, b].map((part) => {
      const share = part / 255;
      return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
    });
    return 0.2126 * R + 0.7152 * G + 0.0722 * B;
  };
  const wrong = new Set<string>();
  for (const element of document.body.querySelectorAll('*')) {
    const text = [...element.childNodes]
      .filter(({ nodeType }) => nodeType === Node.TEXT_NODE)
      // A space without width keeps a line its height; there is nothing of it to see.
      .map(({ textContent }) => textContent?.replaceAll('\u200b', '').trim() ?? '')
      .join('');
    if (text === '' || element.closest('svg, option, :disabled, [aria-disabled=true]')) continue;
    // Words of what cannot be used may be faint, wherever they stand.
    if (element.closest('label')?.control?.matches(':disabled')) continue;
    if (!element.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue;
    const ground = groundOf(element);
    if (!ground) continue;
    const { color, fontSize, fontWeight } = getComputedStyle(element);
    const [one, other] = [light(over(colour(color), ground)), light(ground)];
    const ratio = (Math.max(one, other) + 0.05) / (Math.min(one, other) + 0.05);
    const large = parseFloat(fontSize) >= 24 || (parseFloat(fontSize) >= 18.66 && Number(fontWeight) >= 700);
    // As printed with two digits: what is shown as enough is enough.
    if (ratio < (large ? 3 : 4.5) - 0.005)
      wrong.add(`"${text.slice(0, 40)}" stands out by ${ratio.toFixed(2)} only: ${color} on ${ground.map(Math.round)}`);
  }
  return [...wrong].slice(0, 12);
}

/** Texts too faint for their ground, at this moment. */
export const faintTexts = (page: Page): Promise<string[]> => page.evaluate(faint);
