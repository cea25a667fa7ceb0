// The same rows, drawn by the libraries that pages really use.
import "@lit-labs/virtualizer";
import { useVirtualizer, useWindowVirtualizer } from "@tanstack/react-virtual";
import { AllCommunityModule, createGrid, ModuleRegistry } from "ag-grid-community";
import Clusterize from "clusterize.js";
import { Cell, Column, Table } from "fixed-data-table-2";
import "fixed-data-table-2/dist/fixed-data-table.css";
import { html, render } from "lit";
import { unsafeHTML } from "lit/directives/unsafe-html.js";
import { createElement as h, useRef } from "react";
import { createRoot } from "react-dom/client";
import { Virtuoso } from "react-virtuoso";
import { List } from "react-window";
import { TabulatorFull } from "tabulator-tables";
import "tabulator-tables/dist/css/tabulator_simple.css";
import { VList, WindowVirtualizer } from "virtua";
import { createApp, h as vue } from "vue";
import { DynamicScroller, DynamicScrollerItem, RecycleScroller } from "vue-virtual-scroller";
import "vue-virtual-scroller/index.css";

import { COUNT, EQUAL_PX, heightPx, rowHtml } from "./rows.js";

const numbers = Array.from({ length: COUNT }, (_, row) => row);
const Row = ({ row, height }) => h("div", { dangerouslySetInnerHTML: { __html: rowHtml(row, height) } });
const draw = (place, element) => createRoot(place).render(element);

/* Every row is guessed to be 40 px high, and measured once it is drawn. */
function Measured({ list, height }) {
  const margin = list.options.scrollMargin ?? 0;
  return h(
    "div",
    { style: { height: list.getTotalSize(), position: "relative", ...height } },
    list.getVirtualItems().map(({ key, index, start }) =>
      h(
        "div",
        {
          key,
          "data-index": index,
          ref: list.measureElement,
          style: { position: "absolute", top: 0, left: 0, right: 0, transform: `translateY(${start - margin}px)` },
        },
        h(Row, { row: index }),
      ),
    ),
  );
}

function MeasuredInWindow() {
  return h(Measured, { list: useWindowVirtualizer({ count: COUNT, estimateSize: () => 40, scrollMargin: 60 }) });
}

function MeasuredInPanel() {
  const panel = useRef(null);
  const list = useVirtualizer({ count: COUNT, estimateSize: () => 40, getScrollElement: () => panel.current });
  return h("div", { ref: panel, style: { height: "100%", overflow: "auto" } }, h(Measured, { list }));
}

const asTable = numbers.map((row) => ({ row, height: heightPx(row) }));

export const lists = {
  "react-window": (place) =>
    draw(
      place,
      h(List, {
        rowCount: COUNT,
        rowHeight: heightPx,
        rowProps: {},
        rowComponent: ({ index, style }) => h("div", { style }, h(Row, { row: index })),
        style: { height: "100%" },
      }),
    ),
  "react-virtuoso": (place, inPanel) =>
    draw(
      place,
      h(Virtuoso, {
        totalCount: COUNT,
        itemContent: (row) => h(Row, { row }),
        ...(inPanel ? { style: { height: "100%" } } : { useWindowScroll: true }),
      }),
    ),
  "@tanstack/react-virtual": (place, inPanel) => draw(place, h(inPanel ? MeasuredInPanel : MeasuredInWindow)),
  virtua: (place, inPanel) =>
    draw(
      place,
      h(
        inPanel ? VList : WindowVirtualizer,
        inPanel ? { style: { height: "100%" } } : {},
        numbers.map((row) => h(Row, { key: row, row })),
      ),
    ),
  "@lit-labs/virtualizer": (place, inPanel) => {
    const row = (number) => html`<div style="width:100%">${unsafeHTML(rowHtml(number))}</div>`;
    render(
      inPanel
        ? html`<lit-virtualizer scroller style="height:100%" .items=${numbers} .renderItem=${row}></lit-virtualizer>`
        : html`<lit-virtualizer .items=${numbers} .renderItem=${row}></lit-virtualizer>`,
      place,
    );
  },
  "vue-virtual-scroller": (place, inPanel) => {
    const Scroller = () =>
      vue(
        RecycleScroller,
        { items: asTable, itemSize: EQUAL_PX, keyField: "row", pageMode: !inPanel, style: inPanel ? "height:100%" : "" },
        { default: ({ item }) => vue("div", { innerHTML: rowHtml(item.row, EQUAL_PX) }) },
      );
    createApp(Scroller).mount(place);
  },
  "vue-virtual-scroller, measured": (place, inPanel) => {
    const Scroller = () =>
      vue(
        DynamicScroller,
        { items: asTable, minItemSize: EQUAL_PX, keyField: "row", pageMode: !inPanel, style: inPanel ? "height:100%" : "" },
        {
          default: ({ item, active }) =>
            vue(DynamicScrollerItem, { item, active }, () => vue("div", { innerHTML: rowHtml(item.row) })),
        },
      );
    createApp(Scroller).mount(place);
  },
  "tabulator-tables": (place) => {
    const formatter = (cell) => rowHtml(cell.getRow().getData().row);
    new TabulatorFull(place, {
      data: asTable,
      height: "100%",
      layout: "fitColumns",
      columns: [{ title: "Sailing", field: "row", formatter, variableHeight: true }],
    });
  },
  "ag-grid-community": (place) => {
    ModuleRegistry.registerModules([AllCommunityModule]);
    createGrid(place, {
      rowData: asTable,
      getRowHeight: ({ data }) => data.height,
      columnDefs: [
        { field: "row", flex: 1, cellStyle: { padding: 0, border: 0, lineHeight: 1 }, cellRenderer: ({ data }) => {
          const box = document.createElement("div");
          box.innerHTML = rowHtml(data.row, data.height);
          return box;
        } },
      ],
    });
  },
  "fixed-data-table-2": (place) => {
    const cell = ({ rowIndex }) => h(Cell, null, h(Row, { row: rowIndex, height: EQUAL_PX - 18 }));
    draw(
      place,
      h(
        Table,
        { rowsCount: COUNT, rowHeight: EQUAL_PX, headerHeight: 30, width: place.clientWidth, height: place.clientHeight },
        h(Column, { header: "Sailing", cell, width: place.clientWidth - 20 }),
      ),
    );
  },
  "clusterize.js": (place) => {
    place.innerHTML = '<div id="scroll" style="height:100%;overflow:auto"><div id="content" tabindex="0"></div></div>';
    const rows = numbers.map((row) => rowHtml(row, EQUAL_PX));
    new Clusterize({ rows, scrollId: "scroll", contentId: "content", rows_in_block: 20, tag: "div" });
  },
};
