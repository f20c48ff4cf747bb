import { spawn } from "node:child_process";
import { buildWeb, checkNode, installPackages, root } from "./setup.mjs";

checkNode();
installPackages();
buildWeb();
// Only now are the packages there that this needs.
const { bundleServer } = await import("./bundle.mjs");
const server = spawn(process.execPath, [bundleServer()], { cwd: root, stdio: "inherit" });
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
server.on("exit", (code) => process.exit(code ?? 0));
