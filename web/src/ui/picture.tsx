import { Flex } from "@chakra-ui/react";
import { useRef } from "react";
import { api, unwrap } from "../api/client";
import { useKept } from "../api/hooks";
import { Press } from "./button";
import { newKey } from "./key";
import { Trouble } from "./notes";
import { small } from "./photo";

/** A photo, made small on the device. */
export function Picture({
  of,
  id,
  learner,
  set,
}: {
  of: string;
  id?: number;
  /** It goes when the learner goes. */
  learner?: number;
  set: (id: number) => void;
}) {
  const picker = useRef<HTMLInputElement>(null);
  const add = useKept(async (file: File) =>
    unwrap(
      api.POST("/api/v1/photos", { body: { key: newKey(), learner_id: learner, data: await small(file) } }),
    ),
  );
  return (
    <Flex gap="2" align="center">
      {id ? (
        <img
          src={`/api/v1/photos/${id}`}
          alt={`${of}, photographed`}
          width="80"
          style={{ borderRadius: 6 }}
        />
      ) : null}
      <Press small onClick={() => picker.current?.click()}>
        {id ? "Another photo" : "Photo"}
      </Press>
      <input
        ref={picker}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        aria-label={`Photo of ${of}`}
        onChange={(e) =>
          e.target.files?.[0] && add.mutate(e.target.files[0], { onSuccess: (p) => set(p.id) })
        }
      />
      <Trouble error={add.error} />
    </Flex>
  );
}
