import { configure } from "@testing-library/react";

// Generous: a busy machine is slow, not wrong.
configure({ asyncUtilTimeout: 30_000 });
