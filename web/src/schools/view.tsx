import { Box, Flex } from "@chakra-ui/react";
import { useSchools, useTeach } from "../api/hooks";
import { Trouble } from "../ui/notes";

/** Where practitioners disagree: the instructor says what he teaches. */
export function SchoolsView() {
  const { data, error } = useSchools();
  const teach = useTeach();
  return (
    <Box as="main" w="100%" maxW="900px" mx="auto" px={{ base: 3, md: 6 }} py="5">
      <Box as="h1" fontSize="30px">
        What you teach
      </Box>
      <Box color="quiet" mt="1">
        Good instructors differ on these. Your choice shows in steps, checks, faults, turns, wraps and the
        ranking. Common practice, no source.
      </Box>
      <Trouble error={error ?? teach.error} />
      {data?.questions.map((q) => {
        const chosen = data.chosen[q.id] ?? q.schools[0]?.id;
        return (
          <Box as="fieldset" key={q.id} mt="6" border="none" p="0" data-question={q.id}>
            <Box as="legend" className="head" fontSize="20px" mb="1">
              {q.question}
            </Box>
            {q.schools.map((s, i) => (
              <label key={s.id}>
                <Flex
                  gap="3"
                  px="3"
                  py="2"
                  mt="1.5"
                  minH="44px"
                  align="center"
                  bg={s.id === chosen ? "glassWash" : "sheet"}
                  border="1.5px solid"
                  borderColor={s.id === chosen ? "glass" : "rule"}
                  borderRadius="10px"
                  cursor="pointer"
                >
                  <input
                    type="radio"
                    name={q.id}
                    checked={s.id === chosen}
                    onChange={() => {
                      const next = { ...data.chosen };
                      if (i === 0) delete next[q.id];
                      else next[q.id] = s.id;
                      teach.mutate(next);
                    }}
                    style={{ width: 22, height: 22, accentColor: "var(--glass)", flex: "none" }}
                  />
                  <Box>
                    <Box fontWeight="700">
                      {s.name}
                      {i === 0 && (
                        <Box as="span" fontWeight="400" color="quiet">
                          {" "}
                          · usual
                        </Box>
                      )}
                    </Box>
                    <Box fontSize="15.5px">{s.why}</Box>
                  </Box>
                </Flex>
              </label>
            ))}
          </Box>
        );
      })}
    </Box>
  );
}
