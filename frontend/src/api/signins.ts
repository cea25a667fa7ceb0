import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { answered, api, sendForm } from "./client";
import type { components } from "./generated";
import type { SignIn } from "./types";

/** What is saved, by kind. Secrets go in here and never come back. */
export type NewSignIn =
  | { kind: "form"; form: components["schemas"]["FormIn"] }
  | { kind: "basic"; basic: components["schemas"]["BasicIn"] }
  | { kind: "state"; host: string; file: File };

export function useSignIns() {
  return useQuery({ queryKey: ["sign-ins"], queryFn: () => answered(api.GET("/api/sign-ins")) });
}

function send(made: NewSignIn): Promise<SignIn> {
  switch (made.kind) {
    case "form":
      return answered(api.PUT("/api/sign-ins/form", { body: made.form }));
    case "basic":
      return answered(api.PUT("/api/sign-ins/basic", { body: made.basic }));
    case "state": {
      const body = new FormData();
      body.append("host", made.host);
      body.append("file", made.file);
      return sendForm<SignIn>("/api/sign-ins/state", body);
    }
  }
}

export function useSaveSignIn() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: () => queries.invalidateQueries({ queryKey: ["sign-ins"] }),
  });
}

export function useDeleteSignIn() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (id: number) => api.DELETE("/api/sign-ins/{sign_in_id}", { params: { path: { sign_in_id: id } } }),
    onSettled: () => queries.invalidateQueries({ queryKey: ["sign-ins"] }),
  });
}
