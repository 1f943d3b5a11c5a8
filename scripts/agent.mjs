// npm run agent: the agent for a device, as one file, with its size and its SHA-256.
import { join } from "node:path";
import { bundleAgent } from "./lib/agent.mjs";
import { root, say } from "./lib/run.mjs";

const file = join(root, ".lamp", "lamp-agent.mjs");
const { bytes, sha256 } = await bundleAgent(file);
say(`${file}\n${bytes} bytes, SHA-256 ${sha256}`);
