// Starts the server on loopback. PORT, DEMO_COUNT, DEMO_SEED and DEMO_RATE change what README says of them.
import { buildApp } from './app';

const number = (name: string, standard: number): number => {
  const text = process.env[name];
  const value = Number(text ?? standard);
  if (text !== undefined && (text.trim() === '' || !Number.isFinite(value) || value < 0)) {
    console.error(`${name} must be a number from 0 up, not “${text}”.`);
    process.exit(2);
  }
  return value;
};

const port = number('PORT', 4180);
const app = await buildApp({
  dist: new URL('../dist', import.meta.url).pathname,
  count: number('DEMO_COUNT', 2_500),
  seed: number('DEMO_SEED', 7),
  perMinute: number('DEMO_RATE', 3),
  now: Date.now,
});
try {
  await app.listen({ host: '127.0.0.1', port });
  console.log(`Wide Sort is at http://127.0.0.1:${port}/`);
} catch (error) {
  const taken = error instanceof Error && 'code' in error && error.code === 'EADDRINUSE';
  console.error(taken ? `Port ${port} is taken. Start with another, for example: PORT=4190 npm start` : error);
  process.exit(1);
}
