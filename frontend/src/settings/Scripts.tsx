import { Accounts } from "./scripts/Accounts";
import { Webhooks } from "./scripts/Webhooks";
import { isFound } from "./finding";

/** What is for other people and other programmes, where it is looked for or everything is shown. */
export function Scripts({ sought }: { sought: string }) {
  return (
    <>
      {isFound(sought, ["Accounts and tokens, people, passwords, roles, scripts"]) && <Accounts />}
      {isFound(sought, ["Webhooks: programmes that are told, messages, addresses, signed, notify"]) && <Webhooks />}
    </>
  );
}
