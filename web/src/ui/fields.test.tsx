// @vitest-environment jsdom
/** What is typed, and what can be pressed. */

import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { fact, facts } from "../testing";
import { WeightField } from "./AmountField";
import { FactFigure } from "./FactFigure";
import { MeasuresProvider } from "./formatters";
import { NumberField } from "./NumberField";
import { NumberRow } from "./Row";
import { TemperatureField } from "./TemperatureField";

afterEach(cleanup);

function Field({ told, start = 375, clear }: { told: (value: number) => void; start?: number; clear?: () => void }) {
  const [value, setValue] = useState(start);
  return (
    <>
      <NumberField
        label="Water"
        value={value}
        unit="g"
        within={{ min: 1, max: 5000 }}
        onClear={clear}
        onChange={(next) => {
          told(next);
          setValue(next);
        }}
      />
      <button type="button" onClick={() => setValue(500)}>
        elsewhere
      </button>
    </>
  );
}

const input = () => screen.getByLabelText("Water") as HTMLInputElement;

describe("a number to type", () => {
  it.each(["0", "-5", "a lot", "1e12", "NaN", "Infinity", ""])(
    "%j stays as typed, is refused, and is not told",
    (typed) => {
      const told = vi.fn();
      render(<Field told={told} />);
      fireEvent.change(input(), { target: { value: typed } });
      expect(input().value).toBe(typed);
      expect(screen.getByRole("alert").textContent).toMatch(/^Water: .*1 to 5000 g/);
      expect(input().getAttribute("aria-invalid")).toBe("true");
      expect(told).not.toHaveBeenCalled();
      fireEvent.blur(input());
      expect(input().value).toBe(typed);
    },
  );

  it("takes a comma for a point", () => {
    const told = vi.fn();
    render(<Field told={told} />);
    fireEvent.change(input(), { target: { value: "12,5" } });
    expect(told).toHaveBeenLastCalledWith(12.5);
  });

  it("goes by steps with the arrow keys, never past its ends", async () => {
    const told = vi.fn();
    render(<Field told={told} start={4999.5} />);
    input().focus();
    await userEvent.keyboard("{ArrowUp}{ArrowUp}");
    expect(told.mock.calls.flat()).toEqual([5000, 5000]);
    await userEvent.keyboard("{ArrowDown}");
    expect(told).toHaveBeenLastCalledWith(4999);
  });

  it("follows a change from elsewhere, but not while it is being typed in", () => {
    render(<Field told={() => {}} />);
    fireEvent.click(screen.getByText("elsewhere"));
    expect(input().value).toBe("500");
    fireEvent.focus(input());
    fireEvent.change(input(), { target: { value: "44" } });
    expect(input().value).toBe("44");
  });

  it("may be left empty where empty means something", () => {
    const clear = vi.fn();
    render(<Field told={() => {}} clear={clear} />);
    fireEvent.change(input(), { target: { value: "" } });
    expect(clear).toHaveBeenCalled();
    expect(screen.queryByRole("alert")).toBeNull();
  });

  it("is whole in a row of whole numbers", () => {
    const told = vi.fn();
    render(<NumberRow label="Tiers" within={{ min: 1, max: 5 }} value={2} onChange={told} />);
    fireEvent.change(screen.getByLabelText("Tiers"), { target: { value: "2.6" } });
    expect(told).toHaveBeenCalledWith(3);
  });
});

describe("a temperature to type", () => {
  it("is read and typed in the kitchen's degrees and kept in Celsius", () => {
    const told = vi.fn();
    render(
      <MeasuresProvider measures={{ temperature_unit: "F" }}>
        <TemperatureField label="Room" celsius={20} within={{ min: 5, max: 45 }} onChange={told} />
      </MeasuresProvider>,
    );
    const field = screen.getByLabelText("Room") as HTMLInputElement;
    expect(field.value).toBe("68");
    fireEvent.change(field, { target: { value: "77" } });
    expect(told.mock.calls[0]?.[0]).toBeCloseTo(25);
    fireEvent.change(field, { target: { value: "20" } });
    expect(screen.getByRole("alert").textContent).toContain("41 to 113 °F");
  });
});

describe("a number that can be pressed", () => {
  const input_ = (ref: string, label: string, value: number | string, unit = "") => ({ ref, label, value, unit });
  const result = facts(
    fact("heat.done_min", 34, "min", {
      low: 25,
      high: 43,
      because: {
        says: "the heart is clear",
        source: "conduction",
        inputs: [input_("shape.depth_mm", "depth", 31, "mm"), input_("sheet:vessel.tin", "tin", "18 cm round")],
      },
    }),
    fact("shape.depth_mm", 31, "mm", {
      because: { says: "volume over floor", source: "geometry", inputs: [input_("sheet:vessel.count", "tins", 1)] },
    }),
  );

  it("tells its range, its because and its source, and goes down to the inputs and back", async () => {
    render(
      <FactFigure facts={result} name="heat.done_min">
        34
      </FactFigure>,
    );
    const user = userEvent.setup();
    await user.click(screen.getByRole("button", { name: /34.*why this number/ }));
    const dialog = screen.getByRole("dialog");
    expect(dialog.textContent).toContain("25 min to 43 min");
    expect(dialog.textContent).toContain("the heart is clear.");
    expect(dialog.textContent).toContain("From: conduction");
    expect(screen.queryByRole("button", { name: "tin" })).toBeNull();
    await user.click(screen.getByRole("button", { name: "depth" }));
    expect(dialog.textContent).toContain("volume over floor");
    await user.click(screen.getByRole("button", { name: "back" }));
    expect(dialog.textContent).toContain("the heart is clear.");
    await user.click(screen.getByRole("button", { name: "close" }));
    expect(screen.queryByRole("dialog")).toBeNull();
  });

  it("is plain where there is no such fact", () => {
    render(
      <FactFigure facts={result} name="heat.float_min">
        –
      </FactFigure>,
    );
    expect(screen.queryByRole("button")).toBeNull();
  });
});

describe("a weight where ounces are spoken", () => {
  it("is kept in grams, within the limits that are kept", () => {
    const kept = vi.fn();
    render(
      <MeasuresProvider measures={{ weight_unit: "oz" }}>
        <WeightField label="Filling" value={18} within={{ above: 0, max: 300 }} onChange={kept} />
      </MeasuresProvider>,
    );
    const field = screen.getByLabelText("Filling") as HTMLInputElement;
    expect(field.value).toBe("0.63"); // 18 / 28.35
    fireEvent.change(field, { target: { value: "4.4" } });
    expect(kept).toHaveBeenLastCalledWith(124.74); // 4.4 x 28.3495
    fireEvent.change(field, { target: { value: "10.6" } }); // as 300 g are shown: 300.5 g by itself
    expect(kept).toHaveBeenLastCalledWith(300);
  });
});
