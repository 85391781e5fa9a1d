import { configure } from "@testing-library/react";

// On a busy machine a page takes its time; a test's own limit is the one that counts.
configure({ asyncUtilTimeout: 15_000 });
