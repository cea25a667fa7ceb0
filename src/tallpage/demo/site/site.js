/* Photographs that wait until they come near; the endless notices; the cookie notice. */
const late = new IntersectionObserver((entries) => {
  for (const { target, isIntersecting } of entries) {
    if (!isIntersecting) continue;
    target.src = target.dataset.src;
    late.unobserve(target);
  }
}, { rootMargin: "200px" });
for (const image of document.querySelectorAll("img[data-src]")) late.observe(image);

const feed = document.querySelector("#feed");
if (feed) {
  let next = feed.children.length;
  let busy = false;
  const end = new IntersectionObserver(async ([entry]) => {
    if (!entry.isIntersecting || busy) return;
    busy = true;
    const answer = await fetch(`/notices/more?from=${next}`);
    feed.insertAdjacentHTML("beforeend", await answer.text());
    next = feed.children.length;
    busy = false;
    end.unobserve(document.querySelector("#end"));
    end.observe(document.querySelector("#end"));
  }, { rootMargin: "400px" });
  end.observe(document.querySelector("#end"));
}
for (const button of document.querySelectorAll("#cookies button"))
  button.addEventListener("click", () => document.querySelector("#cookies").remove());
