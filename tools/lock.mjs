import { createHash } from 'node:crypto';
import { createServer } from 'node:net';

const take = (name) =>
  new Promise((resolve, reject) => {
    const held = createServer();
    held.once('error', (error) => (error.code === 'EADDRINUSE' ? resolve(null) : reject(error)));
    held.listen(name, () => resolve(held));
  });

/**
 * One command of this machine at a time does such work; the others wait for it. What is held is a name
 * that ends with its process, however that ends, so nothing is left behind that others would wait for.
 *
 * @param what such as a folder
 */
export const exclusively = async (what, work) => {
  const name = `\0gravek-${createHash('sha256').update(what).digest('hex').slice(0, 24)}`;
  let held = await take(name);
  while (!held) {
    await new Promise((resolve) => setTimeout(resolve, 200));
    held = await take(name);
  }
  try {
    return await work();
  } finally {
    await new Promise((resolve) => held.close(resolve));
  }
};
