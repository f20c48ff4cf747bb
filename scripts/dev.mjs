// The server (restarted when its files change) and Vite with hot reload, side by side.
import { spawn } from "node:child_process";
import { checkNode, installPackages, root } from "./setup.mjs";

checkNode();
installPackages();
const env = { ...process.env, PORT: process.env.API_PORT ?? "4748", API_PORT: process.env.API_PORT ?? "4748" };
const children = [
  spawn(process.execPath, ["node_modules/tsx/dist/cli.mjs", "watch", "--clear-screen=false", "server/main.ts"], {
    cwd: root,
    stdio: "inherit",
    env,
  }),
  spawn(process.execPath, ["node_modules/vite/bin/vite.js"], { cwd: root, stdio: "inherit", env }),
];
const end = () => children.forEach((child) => child.kill());
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, end);
children.forEach((child) =>
  child.on("exit", (code) => {
    end();
    process.exitCode = code ?? 0;
  }),
);
