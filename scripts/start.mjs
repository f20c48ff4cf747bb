import { spawn } from "node:child_process";
import { buildWeb, checkNode, installPackages, root } from "./setup.mjs";

checkNode();
installPackages();
buildWeb();
const server = spawn(process.execPath, ["--import", "tsx", "server/main.ts"], { cwd: root, stdio: "inherit" });
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
server.on("exit", (code) => process.exit(code ?? 0));
