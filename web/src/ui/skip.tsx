import { Box } from "@chakra-ui/react";

/** The first stops of the keyboard: past everything, to the sentence or the answer. */
export function Skip() {
  return (
    <Box
      position="absolute"
      left="-9999px"
      _focusWithin={{ left: "8px", top: "8px", zIndex: 10, bg: "sheet", p: "2", borderRadius: "sm" }}
    >
      {[
        ["#sentence", "To the sentence"],
        ["#answer", "To the answer"],
      ].map(([to, words]) => (
        <a
          key={to}
          href={to}
          className="link strong"
          onClick={(e) => {
            e.preventDefault();
            const place = document.querySelector<HTMLElement>(to ?? "");
            (to === "#sentence" ? place?.querySelector<HTMLElement>(".phrase") : place)?.focus();
          }}
        >
          {words}{" "}
        </a>
      ))}
    </Box>
  );
}
