#!/usr/bin/env -S npx tsx
import { Command, CommanderError } from "commander";
import { analyse } from "./analyse";
import { attendCommand } from "./attend";
import { compareCommand } from "./compare";
import { capture } from "./capture";
import { config } from "./config";
import { BadInput } from "./input";
import { resolution } from "./resolution";
import { running } from "./running";
import { scaleLaw } from "./scaleLaw";
import { standInCommand } from "./standIn";
import { tally } from "./tally";
import { timetableCommand } from "./timetable";

const program = new Command("lamp")
  .description("Frame logs in, verdicts out: the core of Velvet Lamp from a terminal.")
  .exitOverride()
  .configureOutput({ outputError: (text, write) => write(text.replace(/^error: /, "lamp: ")) });

analyse(program);
tally(program);
resolution(program);
compareCommand(program);
scaleLaw(program);
config(program);
timetableCommand(program);
capture(program);
running(program);
standInCommand(program);
attendCommand(program);

program.parseAsync().catch((error: unknown) => {
  if (error instanceof CommanderError) process.exitCode = error.exitCode === 0 ? 0 : 2;
  else if (error instanceof BadInput) {
    process.stderr.write(`lamp: ${error.message}\n`);
    process.exitCode = 2;
  } else throw error;
});
