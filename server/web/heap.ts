import { setFlagsFromString } from "node:v8";

/**
 * By itself the engine lets a heap grow to several times what is in use before it is cleared, the more the more memory the
 * machine has. Pages leave much behind and keep little: clearing at half as much again costs no measurable time here and
 * keeps the process at the size that it has after its first minute (`npm run bench -- load`). Holds for the threads, too.
 */
setFlagsFromString("--heap-growing-percent=50");
