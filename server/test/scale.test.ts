import { SimulatedScale } from '../src/devices/scale';

test('a load settles; noise, a stuck and an unplugged scale can be had', () => {
  let now = 0;
  const scale = new SimulatedScale(() => now, 3);
  scale.place(5000);
  now = 200;
  expect(scale.read()).toMatchObject({ stable: false, simulated: true });
  expect(scale.read().massG).toBeLessThan(4000);
  now = 4000;
  expect(Math.abs(scale.read().massG - 5000)).toBeLessThanOrEqual(1);
  expect(scale.read().stable).toBe(true);
  scale.mood = { noiseG: 50, stuck: false, unplugged: false };
  expect(scale.read().stable).toBe(false);
  scale.mood = { noiseG: 0, stuck: true, unplugged: false };
  const stuck = scale.read().massG;
  scale.place(9000);
  now = 9000;
  expect(scale.read().massG).toBe(stuck);
  scale.mood = { noiseG: 0, stuck: false, unplugged: true };
  expect(scale.read().unplugged).toBe(true);
});

test('a reading posted from outside counts for five seconds', () => {
  let now = 0;
  const scale = new SimulatedScale(() => now);
  scale.post(1234);
  expect(scale.read()).toMatchObject({ massG: 1234, simulated: false });
  now = 6000;
  expect(scale.read().simulated).toBe(true);
});
