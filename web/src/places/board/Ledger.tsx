import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import type { SubmitEvent } from "react";
import { useState } from "react";
import { api, sentence, take } from "../../api/client";
import type { Account, Ledger as LedgerOut } from "../../api/types";
import { useNotice } from "../../ui/notice";
import { Field, Pick } from "../../ui/Field";
import { condensed } from "../../theme/theme";
import { readMoney, readTime, sayMoney, sayTime } from "../../format/amounts";

const ACCOUNTS: { id: Account; name: string }[] = [
  { id: "planned", name: "planned work" },
  { id: "extra", name: "extra work found" },
  { id: "own mistake", name: "our own mistake" },
];

/** Time and material by who pays: the shop's own mistakes never reach the customer's total. */
export function Ledger({ jobId }: { jobId: string }) {
  const path = { path: { job_id: jobId } };
  const key = ["jobs", jobId, "bookings"];
  const ledger = useQuery({
    queryKey: key,
    queryFn: () => take(api.GET("/api/jobs/{job_id}/bookings", { params: path })),
  });
  const client = useQueryClient();
  const notice = useNotice();
  // asked anew, not taken from the answer: of two on their way the earlier may come back last
  const keep = (work: Promise<LedgerOut>) => work.then(() => client.invalidateQueries({ queryKey: key }));
  const fail = (error: unknown) => notice({ text: sentence(error) });

  const strike = (id: string, what: string) => {
    const one = { params: { path: { job_id: jobId, booking_id: id } } };
    void keep(take(api.DELETE("/api/jobs/{job_id}/bookings/{booking_id}", one)))
      .then(() =>
        notice({
          text: `“${what}” is struck out.`,
          undo: () => void keep(take(api.POST("/api/jobs/{job_id}/bookings/{booking_id}/restore", one))).catch(fail),
        }),
      )
      .catch(fail);
  };

  return (
    <Box component="section" aria-label="Who pays for what" sx={{ mt: 1 }}>
      <Box component="h2" sx={{ m: 0, font: `600 22px ${condensed}`, borderBottom: "2px solid var(--ink)" }}>
        Who pays for what
      </Box>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: "minmax(0, 1fr) 300px",
          gap: 4,
          "@media (max-width: 800px)": { gridTemplateColumns: "1fr" },
        }}
      >
        <Box>
          {ledger.data?.bookings.length === 0 && <Box sx={{ py: 1, color: "var(--second)" }}>Nothing booked yet.</Box>}
          {ledger.data?.bookings.map((booking) => (
            <Box
              key={booking.id}
              sx={{ display: "flex", gap: 2, alignItems: "center", borderBottom: "1px solid var(--rule)", py: 0.5 }}
            >
              <Box sx={{ flex: 1, minWidth: 0, overflowWrap: "anywhere" }}>
                {booking.what}
                <Box sx={{ fontSize: 14, color: booking.payer === "shop" ? "var(--caution)" : "var(--second)" }}>
                  {ACCOUNTS.find((account) => account.id === booking.account)?.name}
                  {booking.payer === "shop" ? ", the shop pays" : ""}
                </Box>
              </Box>
              <Box sx={{ font: `600 17px ${condensed}`, whiteSpace: "nowrap" }}>
                {booking.minutes > 0 && sayTime(booking.minutes)}
              </Box>
              <Box sx={{ font: `600 17px ${condensed}`, whiteSpace: "nowrap", minWidth: 60, textAlign: "right" }}>
                {booking.material_cents > 0 && sayMoney(booking.material_cents)}
              </Box>
              <Button
                size="small"
                variant="text"
                aria-label={`Strike out ${booking.what}`}
                onClick={() => strike(booking.id, booking.what)}
                sx={{ minWidth: 36 }}
              >
                ✕
              </Button>
            </Box>
          ))}
          <Totals ledger={ledger.data} />
        </Box>
        <BookForm
          onBook={(draft) => keep(take(api.POST("/api/jobs/{job_id}/bookings", { params: path, body: draft })))}
        />
      </Box>
    </Box>
  );
}

function Totals({ ledger }: { ledger: LedgerOut | undefined }) {
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 4, mt: 1 }}>
      {ledger?.totals.map((total) => (
        <Box key={total.payer} data-total={total.payer}>
          <Box sx={{ color: "var(--second)" }}>{total.payer === "customer" ? "the customer’s" : "the shop’s own"}</Box>
          <Box sx={{ font: `600 22px ${condensed}` }}>
            {sayTime(total.minutes)} · material {sayMoney(total.material_cents)}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

interface BookFormProps {
  onBook: (draft: { account: Account; what: string; minutes: number; material_cents: number }) => Promise<unknown>;
}

function BookForm({ onBook }: BookFormProps) {
  const [account, setAccount] = useState<Account>("planned");
  const [what, setWhat] = useState("");
  const [time, setTime] = useState("");
  const [money, setMoney] = useState("");
  const [problem, setProblem] = useState("");
  const minutes = readTime(time);
  const cents = readMoney(money);

  const submit = (event: SubmitEvent) => {
    event.preventDefault();
    if (what.trim() === "") setProblem("Say what was done or used.");
    else if (minutes === null || cents === null) setProblem("Put the marked figure right first.");
    else if (minutes === 0 && cents === 0) setProblem("Give a time, such as 1:30, or an amount, such as 12.50.");
    else {
      // Emptied at once, so that the next entry can be typed while this one is on its way; a refused one comes back.
      setWhat("");
      setTime("");
      setMoney("");
      setProblem("");
      void onBook({ account, what: what.trim().slice(0, 120), minutes, material_cents: cents }).catch(
        (error: unknown) => {
          setWhat((now) => now || what);
          setTime((now) => now || time);
          setMoney((now) => now || money);
          setProblem(sentence(error));
        },
      );
    }
  };

  return (
    <Box component="form" onSubmit={submit} aria-label="Book time or material" sx={{ pt: 1 }}>
      <Pick label="Booked as" value={account} options={ACCOUNTS} onChange={(id) => setAccount(id as Account)} />
      <Field label="What" text={what} placeholder="done or used" onText={setWhat} />
      <Field
        label="Time"
        text={time}
        placeholder="1:30 or 45 min"
        problem={minutes === null ? "Write minutes, or hours and minutes such as 1:30." : undefined}
        onText={setTime}
      />
      <Field
        label="Material"
        text={money}
        placeholder="12.50"
        problem={cents === null ? "Write an amount such as 12.50." : undefined}
        onText={setMoney}
      />
      {problem && (
        <Box role="alert" sx={{ color: "var(--stop)", mt: 0.5 }}>
          {problem}
        </Box>
      )}
      <Button type="submit" sx={{ mt: 1 }}>
        Book it
      </Button>
    </Box>
  );
}
