import { splitAddresses } from "../gather/addresses";
import { counted } from "../parts/figures";
import { RoutineMenu } from "./RoutineMenu";

/** Takes the pages in the address field and runs a routine over them, in one press. */
export function RunBeside({ text, compact, onTaken }: { text: string; compact: boolean; onTaken: () => void }) {
  const addresses = splitAddresses(text);
  const words = addresses.length === 1 ? (addresses[0] ?? "") : counted(addresses.length, "page");
  return <RoutineMenu over={() => ({ addresses })} words={words} label="Take and run" button={compact ? "" : "h-[54px]"} onStarted={onTaken} iconOnly={compact} />;
}
