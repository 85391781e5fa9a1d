// Puts a button on a page that opens our chat in a frame:
// <script src="https://shelf.example.com/embed-chat.js" async data-words="Chat with us"></script>
(() => {
  const script = document.currentScript;
  const base = new URL(script.src).origin;
  const button = document.createElement("button");
  button.type = "button";
  button.textContent = script.dataset.words || "Chat";
  button.setAttribute("aria-expanded", "false");
  button.style.cssText =
    "position:fixed;right:16px;bottom:16px;z-index:2147483000;padding:10px 16px;border:0;border-radius:2px;background:#0d5a45;color:#fff;font:600 15px system-ui,sans-serif;cursor:pointer";
  let frame = null;
  button.addEventListener("click", () => {
    if (!frame) {
      frame = document.createElement("iframe");
      frame.title = button.textContent;
      frame.src = `${base}/chat?page=${encodeURIComponent(location.href.slice(0, 500))}`;
      frame.style.cssText =
        "position:fixed;right:16px;bottom:64px;z-index:2147483000;width:min(380px,calc(100vw - 32px));height:min(600px,calc(100vh - 96px));border:1px solid #8b9a92;background:#fff";
      document.body.append(frame);
    } else frame.hidden = !frame.hidden;
    button.setAttribute("aria-expanded", String(!frame.hidden));
  });
  document.body.append(button);
})();
