import { asBuilt } from "./built";
import { benchChat } from "./chat";
import { benchFaults } from "./faults";
import { benchFlood } from "./flood";
import { benchHostile } from "./hostile";
import { benchKeystroke } from "./keystroke";
import { benchLibrary } from "./library";
import { benchLoad } from "./load";
import { takePictures } from "./pictures";
import { benchRanking } from "./ranking";
import { benchRankingScale } from "./ranking-scale";
import { benchRankingStart } from "./ranking-start";
import { benchRecord } from "./record";
import { benchRehearse } from "./rehearse";
import { benchScreens } from "./screens";

/** `npm run bench -- NAME`: measures, and prints one line of JSON. Ratios within a run count; machines are noisy. */
const benches: Record<string, () => object | Promise<object>> = {
  chat: benchChat,
  compose: () => asBuilt("compose", "benchCompose"),
  faults: benchFaults,
  flood: benchFlood,
  hostile: benchHostile,
  keystroke: benchKeystroke,
  library: benchLibrary,
  load: benchLoad,
  pictures: takePictures,
  ranking: benchRanking,
  "ranking-scale": benchRankingScale,
  "ranking-start": benchRankingStart,
  record: benchRecord,
  rehearse: benchRehearse,
  screens: benchScreens,
};

const names = process.argv.slice(2);
for (const name of names.length > 0 ? names : Object.keys(benches).filter((one) => one !== "pictures")) {
  const bench = benches[name];
  if (!bench) {
    process.stderr.write(`bench: there is no “${name}”; there is ${Object.keys(benches).join(", ")}\n`);
    process.exitCode = 2;
  } else process.stdout.write(`${JSON.stringify(await bench())}\n`);
}
