import "./style.css";

const breath = () => new Promise((done) => setTimeout(done));

/**
 * What the application stands on is read piece by piece, each in a task of its own, so that a slow device can paint and
 * answer between them. The page asks for all of them at once (vite.config.ts).
 */
async function begin(): Promise<void> {
  await import("react-dom/client");
  await breath();
  await import("./pieces/routing.ts");
  await breath();
  await import("./pieces/shapes.ts");
  await breath();
  const { start } = await import("./start.tsx");
  await breath();
  await start();
}

void begin();
