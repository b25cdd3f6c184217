import { PNG } from 'pngjs';
import { Chance } from './schedule';

type Rgb = readonly [number, number, number];

const TRAY: Rgb = [222, 226, 220];
const BROWN: Rgb = [112, 66, 40];
const VIOLET: Rgb = [92, 58, 84];
const PALE: Rgb = [168, 128, 92];

const WIDTH = 640;
const HEIGHT = 400;
const COLUMNS = 10;
const ROWS = 5;

/** A drawn stand-in for a photograph: a tray of fifty beans, some of them flat. */
export function trayPicture(seed: number, flatShare: number): Uint8Array {
  const chance = new Chance(seed);
  const png = new PNG({ width: WIDTH, height: HEIGHT });
  for (let y = 0; y < HEIGHT; y += 1)
    for (let x = 0; x < WIDTH; x += 1) dot(png, x, y, TRAY, 4 * Math.sin(x / 40) + 3 * Math.cos(y / 30));
  for (let row = 0; row < ROWS; row += 1) {
    for (let column = 0; column < COLUMNS; column += 1) {
      const flat = chance.yes(flatShare);
      bean(png, chance, {
        x: (column + 0.5) * (WIDTH / COLUMNS) + chance.between(-5, 5),
        y: (row + 0.5) * (HEIGHT / ROWS) + chance.between(-5, 5),
        long: chance.between(23, 28),
        wide: flat ? chance.between(5, 7) : chance.between(13, 16),
        turn: chance.between(0, Math.PI),
        colour: flat ? PALE : chance.yes(0.12) ? VIOLET : BROWN,
      });
    }
  }
  return PNG.sync.write(png);
}

function dot(png: PNG, x: number, y: number, [r, g, b]: Rgb, light: number): void {
  const at = 4 * (y * png.width + x);
  png.data[at] = Math.max(0, Math.min(255, r + light));
  png.data[at + 1] = Math.max(0, Math.min(255, g + light));
  png.data[at + 2] = Math.max(0, Math.min(255, b + light));
  png.data[at + 3] = 255;
}

interface Bean {
  x: number;
  y: number;
  long: number;
  wide: number;
  turn: number;
  colour: Rgb;
}

function bean(png: PNG, chance: Chance, { x, y, long, wide, turn, colour }: Bean): void {
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  for (let dy = -30; dy <= 30; dy += 1) {
    for (let dx = -30; dx <= 30; dx += 1) {
      const u = (dx * cos + dy * sin) / long;
      const v = (dy * cos - dx * sin) / wide;
      const far = u * u + v * v;
      const [px, py] = [Math.round(x + dx), Math.round(y + dy)];
      if (far > 1 || px < 0 || py < 0 || px >= png.width || py >= png.height) continue;
      // Folds of the cut face, and light from above.
      const fold = Math.abs(Math.sin(5 * u + 3 * v)) < 0.25 ? -26 : 0;
      dot(png, px, py, colour, fold + 22 * (1 - far) - 14 * v + chance.between(-5, 5));
    }
  }
}
