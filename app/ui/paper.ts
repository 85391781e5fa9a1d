/**
 * An empty page with a policy of its own, for letters shown as an email program would show them: their styles
 * stand in the letter itself, which the program's own pages do not allow. The page that frames it writes into it;
 * nothing on it runs.
 */
export function loader() {
  return new Response(
    '<!DOCTYPE html><html lang="en"><head><title>A letter</title></head><body></body></html>',
    {
      headers: {
        "Content-Type": "text/html; charset=utf-8",
        "Cache-Control": "private, max-age=3600",
        "Content-Security-Policy":
          "default-src 'none'; img-src 'self' data:; style-src 'unsafe-inline'; frame-ancestors 'self'; sandbox allow-same-origin",
      },
    },
  );
}
