import { clocks, device } from "./bench";
import { calendar } from "./calendar";
import { jobs } from "./jobs";
import { log, rack } from "./log";
import { materials, patches } from "./materials";
import { stock } from "./stock";
import { weigh } from "./weigh";
import { works } from "./works";
import { backup, door, errands, kept, odd, settings } from "./workshop";

/** Everything a page can ask of the workshop, by area. Routes are made from it, and pages ask through it. */
export const api = { jobs, log, rack, weigh, calendar, clocks, device, materials, patches, stock, works, settings, door, backup, kept, errands, odd };
