/** Whether a variant `t` follows an original that reads otherwise now: its version’s fallback has other words. */
export const STALE_VARIANT = `(t.original is not null and not t.fallback and exists (
   select 1 from reply_variants f where f.version_id = t.version_id and f.fallback
      and t.original <> jsonb_build_object('subject', f.subject, 'document', f.document)))`;
