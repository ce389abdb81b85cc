import { useQuery } from "@tanstack/react-query";
import { q } from "../api/queries";
import { Tabs } from "../ui/tab";

const views = [
  { to: "/teach", name: "Board", end: true },
  { to: "/teach/report", name: "The class" },
  { to: "/teach/due", name: "Due" },
  { to: "/teach/plan", name: "Lessons" },
  { to: "/teach/people", name: "Learners" },
  { to: "/teach/quay", name: "On the quay" },
];

/** The views of teaching. */
export function TeachNav() {
  const due = useQuery(q.due()).data?.length ?? 0;
  return (
    <Tabs
      name="Teaching"
      views={views.map((v) => (v.name === "Due" && due > 0 ? { ...v, name: `Due (${due})` } : v))}
    />
  );
}
