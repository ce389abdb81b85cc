import { Box, Flex, Input } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { Rig, Schemas } from "../api/client";
import { cardFile } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Svg } from "../ui/drawing";
import { Trouble } from "../ui/notes";
import { prefs } from "../ui/prefs";
import { Sheet } from "../ui/sheet";
import { encode, jointOf } from "./document";

/** The answer as a card: to be shared by the phone, kept as a picture or a page, opened by its link or its code. */
export function SendSheet({
  close,
  rig,
  here,
  text,
}: {
  close: () => void;
  rig: Rig;
  here: Rig;
  text: string;
}) {
  const link = `${location.origin}/?rig=${encode(rig)}`;
  const asked: Schemas["CardQuery"] = {
    rig: here,
    knot: jointOf(here).knot,
    sentence: text,
    name: rig.name,
    left: prefs().hand === "left",
    // A code too long to be read is none.
    link: link.length <= 1800 ? link : undefined,
  };
  const card = useQuery({
    queryKey: ["card", asked],
    queryFn: () => cardFile("png", asked),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const picture = usePicture(card.data);
  const [said, setSaid] = useState("");
  const [error, setError] = useState<unknown>();
  const file = (rig.name || "answer").replace(/[^\p{L}\p{N}]+/gu, "-");
  const share = async () => {
    if (!card.data) return;
    const files = [new File([card.data], `${file}.png`, { type: "image/png" })];
    try {
      await navigator.share(
        navigator.canShare?.({ files })
          ? { files, title: rig.name, text }
          : { title: rig.name, text, url: link },
      );
    } catch (e) {
      if ((e as Error).name !== "AbortError") setError(e);
    }
  };
  const pdf = async () => {
    try {
      save(await cardFile("pdf", asked), `${file}.pdf`);
    } catch (e) {
      setError(e);
    }
  };
  return (
    <Sheet
      open
      close={close}
      title="Send this answer"
      wide
      focus={() => document.querySelector<HTMLElement>("[data-sheet-title]")}
    >
      <Flex gap="5" direction={{ base: "column", md: "row" }} data-testid="send">
        <Box flex="none" w={{ base: "100%", md: "300px" }}>
          <Trouble error={card.error} />
          {picture && (
            <Box asChild w="100%" border="1px solid" borderColor="rule" borderRadius="sm">
              <img src={picture} alt={`The answer as a card. ${text}`} />
            </Box>
          )}
        </Box>
        <Flex direction="column" gap="3" flex="1" minW="0">
          <Flex gap="2" wrap="wrap">
            {"share" in navigator && (
              <Press look="main" onClick={() => void share()} disabled={!card.data}>
                Share…
              </Press>
            )}
            <Press onClick={() => card.data && save(card.data, `${file}.png`)} disabled={!card.data}>
              Picture
            </Press>
            <Press onClick={() => void pdf()}>Page to print</Press>
          </Flex>
          <Copied label="Link" value={link} said={setSaid} />
          <Copied label="The rig in words" value={text} said={setSaid} />
          <Box role="status" color="glass" fontWeight="700">
            {said}
          </Box>
          <Trouble error={error} />
          {asked.link ? (
            <Flex gap="3" align="center">
              <Code link={link} />
              <Box fontSize="md" color="quiet">
                {local()
                  ? "This address is known on this machine only. On another phone it opens where Oarweed is served to the network."
                  : "Held before another phone's camera, this opens the same rig."}
              </Box>
            </Flex>
          ) : (
            <Box color="quiet">This rig is too long for a code; its link can be copied.</Box>
          )}
          {!("share" in navigator) && (
            <Box color="quiet" fontSize="md">
              This browser offers no sharing here: keep the picture and send it as any other, or copy the
              link.
            </Box>
          )}
        </Flex>
      </Flex>
    </Sheet>
  );
}

const local = () => /^(localhost|127\.|\[::1\])/.test(location.hostname);

/** What can be copied, in a field so that it can be marked by hand where there is no clipboard. */
function Copied({ label, value, said }: { label: string; value: string; said: (text: string) => void }) {
  const field = useRef<HTMLInputElement>(null);
  const copy = async () => {
    field.current?.select();
    try {
      await navigator.clipboard.writeText(value);
      said(`${label} copied`);
    } catch {
      said(`${label} is marked: copy it by Ctrl c, or a long touch`);
    }
  };
  return (
    <Box>
      <Box fontSize="md">{label}</Box>
      <Flex gap="2">
        <Input ref={field} readOnly value={value} aria-label={label} flex="1" minW="0" />
        <Press onClick={() => void copy()}>Copy</Press>
      </Flex>
    </Box>
  );
}

function Code({ link }: { link: string }) {
  const { data } = useQuery(q.qr(link));
  return <Svg text={data} w="150px" h="150px" flex="none" role="img" aria-label="The link as a code" />;
}

/** A picture for as long as it is shown. */
function usePicture(data: Blob | undefined): string | undefined {
  const [url, setUrl] = useState<string>();
  useEffect(() => {
    if (!data) return;
    const made = URL.createObjectURL(data);
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [data]);
  return url;
}

function save(data: Blob, name: string) {
  const a = document.createElement("a");
  a.href = URL.createObjectURL(data);
  a.download = name;
  a.click();
  URL.revokeObjectURL(a.href);
}
