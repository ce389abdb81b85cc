import { Box, Input } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useEffect, useId, useState } from "react";
import { Route, Routes, useLocation, useSearchParams } from "react-router";
import { api, type Schemas, signedOut, unwrap } from "../api/client";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { useEntered } from "./entered";
import { LearnerApp } from "./me";

type Session = Schemas["Session"];

/** Who one is decides what is shown: everything, the way in, or a learner's own pages. */
export function Gate({ children }: { children: ReactNode }) {
  const { data, error } = useQuery(q.session());
  const joining = useLocation().pathname === "/join";
  const client = useQueryClient();
  useEffect(() => {
    const again = () => void client.invalidateQueries({ queryKey: q.session().queryKey });
    addEventListener(signedOut, again);
    return () => removeEventListener(signedOut, again);
  }, [client]);
  // Without an answer the rest says so by itself.
  if (error || !data || data.role === "open" || data.role === "instructor")
    return joining && data?.role === "instructor" ? <Join session={data} /> : children;
  if (data.role === "learner") return <LearnerApp session={data} />;
  return (
    <Routes>
      <Route path="/join" element={<Join session={data} />} />
      <Route
        path="*"
        element={data.role === "setup" ? <SetUp session={data} /> : <SignIn session={data} />}
      />
    </Routes>
  );
}

function Form(p: {
  title: string;
  session: Session;
  act: string;
  send: () => Promise<Session>;
  children: ReactNode;
  foot?: ReactNode;
}) {
  const [error, setError] = useState<Error>();
  const [busy, setBusy] = useState(false);
  const entered = useEntered();
  return (
    <Page maxW="520px">
      <Title>{p.title}</Title>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          setBusy(true);
          p.send()
            .then(entered, setError)
            .finally(() => setBusy(false));
        }}
      >
        <Card mt="3" p="4" display="flex" flexDirection="column" gap="3">
          {p.children}
          <Trouble error={error ?? null} />
          <Press type="submit" look="main" disabled={busy}>
            {p.act}
          </Press>
        </Card>
      </form>
      {p.session.plain && (
        <Box mt="3" color="quiet">
          This connection is not encrypted: whoever is on the same network can read what is sent. On a network
          of your own that is a choice; elsewhere serve it over TLS.
        </Box>
      )}
      {p.foot}
    </Page>
  );
}

function Field(p: {
  label: string;
  value: string;
  set: (v: string) => void;
  secret?: boolean;
  auto?: string;
}) {
  const id = useId();
  return (
    <Box>
      <label htmlFor={id}>{p.label}</label>
      <Input
        id={id}
        mt="1"
        type={p.secret ? "password" : "text"}
        value={p.value}
        onChange={(e) => p.set(e.target.value)}
        autoComplete={p.auto ?? "off"}
      />
    </Box>
  );
}

function SignIn({ session }: { session: Session }) {
  const [passphrase, set] = useState("");
  return (
    <Form
      title="Sign in to teach"
      session={session}
      act="Sign in"
      send={() => unwrap(api.POST("/api/v1/session", { body: { passphrase } }))}
      foot={
        <Box mt="4">
          A learner?{" "}
          <a href="/join" className="link strong">
            Join with the code of the lesson
          </a>
        </Box>
      }
    >
      <Field
        label="The instructor's passphrase"
        value={passphrase}
        set={set}
        secret
        auto="current-password"
      />
    </Form>
  );
}

function SetUp({ session }: { session: Session }) {
  const [code, setCode] = useState("");
  const [passphrase, set] = useState("");
  return (
    <Form
      title="Set the passphrase"
      session={session}
      act="Set it, and sign in"
      send={() => unwrap(api.POST("/api/v1/session/setup", { body: { code, passphrase } }))}
    >
      <Box>
        Oarweed listens beyond its own machine. Whoever teaches signs in with a passphrase; learners join with
        a code.
      </Box>
      <Field label="Code, as the terminal shows it" value={code} set={setCode} />
      <Field
        label="Passphrase: a few words, ten letters or more"
        value={passphrase}
        set={set}
        secret
        auto="new-password"
      />
    </Form>
  );
}

function Join({ session }: { session: Session }) {
  const [params] = useSearchParams();
  const [code, setCode] = useState(params.get("code") ?? "");
  const [name, setName] = useState("");
  return (
    <Form
      title="Join the lesson"
      session={session}
      act="Join"
      send={() => unwrap(api.POST("/api/v1/join", { body: { code, name } }))}
    >
      <Field label="Code, from the instructor's screen" value={code} set={setCode} />
      <Field label="Your name, as the instructor knows it" value={name} set={setName} auto="name" />
    </Form>
  );
}
