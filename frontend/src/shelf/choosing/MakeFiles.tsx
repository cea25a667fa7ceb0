import { useMutation } from "@tanstack/react-query";
import { FileImage } from "lucide-react";

import { answered, api } from "../../api/client";
import { useOutlets } from "../../api/outlets";
import { useNotices } from "../../app/notices";
import { showProblem } from "../../app/showProblem";
import { counted } from "../../parts/figures";
import { ClosingButton, Panel } from "../../parts/Panel";

/** Files of the chosen captures for an outlet: one for each of its slots, of the first cut of each capture. */
export function MakeFiles({ ids }: { ids: readonly number[] }) {
  const outlets = useOutlets();
  const show = useNotices((state) => state.show);
  const make = useMutation({
    mutationFn: (outletId: number) => answered(api.POST("/api/outlets/{outlet_id}/files", { params: { path: { outlet_id: outletId } }, body: { captures: [...ids] } })),
    onError: showProblem,
    onSuccess: ({ ordered, there, left_out: leftOut }) => {
      const said = [`${counted(ordered, "file")} under way.`];
      if (there > 0) said.push(`${there} there already.`);
      const [first] = leftOut;
      if (first) said.push(`${counted(leftOut.length, "file")} left out: “${first.name}”: ${first.sentence}`);
      show({ tone: "info", text: said.join(" ") });
    },
  });
  const rows = outlets.data?.filter((outlet) => outlet.slots.length > 0) ?? [];
  return (
    <Panel name="Make their files" label={<><FileImage size={15} aria-hidden /> Make files</>}>
      <p>A file for each slot of an outlet, of the first cut of each. What is there and shows the cut as it is stays.</p>
      <ul className="mt-2 max-h-60 overflow-y-auto">
        {rows.map((outlet) => (
          <li key={outlet.id}>
            <ClosingButton className="flex w-full gap-3 px-2 py-1 text-left hover:bg-base-200" onClick={() => make.mutate(outlet.id)}>
              <span className="min-w-0 flex-1 truncate">{outlet.name}</span>
              <span className="figure">{counted(outlet.slots.length * ids.length, "file")}</span>
            </ClosingButton>
          </li>
        ))}
      </ul>
      {outlets.isSuccess && rows.length === 0 && <p className="mt-2">No outlet has a slot yet.</p>}
    </Panel>
  );
}
