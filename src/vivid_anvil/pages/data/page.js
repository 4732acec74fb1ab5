// Figures of a page: each stands in <div class="live" id="..."> and is drawn when it comes near the screen.
"use strict";
const CONFIG = { responsive: true, displaylogo: false, scrollZoom: true, toImageButtonOptions: { scale: 2 } };

function show(id, made, kind, more) {
  const place = document.getElementById(id);
  const draw = () => {
    if (kind === "model") tellNodes(made.data, more);
    Plotly.newPlot(place, made.data, made.layout, { ...CONFIG, scrollZoom: kind === "model" }).then(() => {
      if (kind === "model") choices(place, more);
      place.dataset.drawn = "yes";
    });
  };
  if (!("IntersectionObserver" in window)) { draw(); return; }
  const near = new IntersectionObserver((seen) => {
    if (seen.some((one) => one.isIntersecting)) { near.disconnect(); draw(); }
  }, { rootMargin: "600px" });
  near.observe(place);
}

// What each node of a surface says under the pointer.
function tellNodes(traces, more) {
  more.nodes.forEach((of, i) => {
    traces[i].text = of.number.map((number, k) => {
      const event = of.event[k] < 0 ? "no damage" : more.events[of.event[k]];
      const life = of.life[k] === "inf" ? "" : "<br>" + of.life[k] + " " + more.unit;
      return "<b>node " + number + "</b>" + life + "<br>" + event;
    });
  });
}

// The panel beside a model: its worst places to go to, its sets to switch on and off.
function choices(place, more) {
  const panel = document.getElementById(place.id + "-panel");
  const head = (text) => { const made = document.createElement("h4"); made.textContent = text; panel.append(made); };
  const first = structuredClone(place.layout.scene.camera);
  if (more.places.length) head("Worst places");
  more.places.forEach((one) => {
    const button = document.createElement("button");
    button.className = "place";
    const rank = document.createElement("b");
    rank.textContent = one.rank;
    button.append(rank, " node " + one.node + ": " + one.life, document.createElement("br"), one.event);
    button.addEventListener("click", () => {
      const from = ["x", "y", "z"].map((axis, i) => one.outwards[i] + 0.4 * first.eye[axis]); // not quite edge-on
      const far = Math.hypot(...from);
      const eye = one.center.map((x, i) => x + (0.75 * from[i]) / far);
      const spot = (three) => ({ x: three[0], y: three[1], z: three[2] });
      panel.querySelectorAll("button").forEach((other) => other.classList.toggle("chosen", other === button));
      Plotly.relayout(place, { "scene.camera": { ...first, center: spot(one.center), eye: spot(eye) } });
    });
    panel.append(button);
  });
  const whole = document.createElement("button");
  whole.textContent = "Whole model";
  whole.className = "whole";
  whole.addEventListener("click", () => {
    panel.querySelectorAll("button").forEach((other) => other.classList.remove("chosen"));
    Plotly.relayout(place, { "scene.camera": first });
  });
  panel.append(whole);
  if (more.sets.length < 2) return;
  head("Sets");
  more.sets.forEach((one, i) => {
    const label = document.createElement("label");
    const box = document.createElement("input");
    box.type = "checkbox";
    box.checked = true;
    box.addEventListener("change", () => Plotly.restyle(place, { visible: box.checked }, [i]));
    label.append(box, " " + one.name + " ", "(" + one.triangles + ")");
    panel.append(label);
  });
}
