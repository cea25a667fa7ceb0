// One page for all lists: ?list=<library>&in=<window|panel>&rows=<count>
import { lists } from "./lists.js";

const asked = new URLSearchParams(location.search);
const inPanel = asked.get("in") === "panel";
const place = document.querySelector("#place");
if (inPanel) {
  document.documentElement.style.cssText = document.body.style.cssText = "height:100%;overflow:hidden";
  place.style.cssText = "position:fixed;inset:0;display:flex;flex-direction:column";
  place.innerHTML =
    '<header style="flex:none;height:60px;background:#dde">Timetable</header><div id="list" style="flex:1;min-height:0;position:relative"></div>';
} else {
  place.innerHTML = '<header style="height:60px;background:#dde">Timetable</header><div id="list"></div>';
}
lists[asked.get("list")](document.querySelector("#list"), inPanel);
