/** @jest-environment jsdom */
import { render } from "@testing-library/react";

const drawn = (children: React.ReactNode) => render(<>{children}</>).container.textContent;

describe("a figure and its unit", () => {
  const ms = 16.7;
  it("stay together in one text, in two beside each other, and after an element", () => {
    expect(drawn(<p>16.7 ms of 60 fps</p>)).toBe("16.7\u00a0ms of 60\u00a0fps");
    expect(drawn(<p>{ms} ms</p>)).toBe("16.7\u00a0ms");
    expect(
      drawn(
        <p>
          <b>{ms}</b> ms
        </p>,
      ),
    ).toBe("16.7\u00a0ms");
    expect(drawn(<p>{ms} ms</p>)).toBe("16.7\u00a0ms");
    expect(
      drawn(
        <>
          {ms} ms, {45} %
        </>,
      ),
    ).toBe("16.7\u00a0ms, 45\u00a0%");
  });
  it("words that only begin like a unit are left alone, and so is whatever isn't drawn text", () => {
    expect(drawn(<p>3 minutes, 2 hours, 5 Widgets, fps 60 or so</p>)).toBe(
      "3 minutes, 2 hours, 5 Widgets, fps 60 or so",
    );
    drawn(<p title="60 fps">x</p>);
    expect(document.querySelector("p[title]")?.getAttribute("title")).toBe("60 fps");
  });
  it("children that come in a list keep their keys, and nothing is no child", () => {
    const logged = jest.spyOn(console, "error").mockImplementation(() => {});
    expect(
      drawn(
        <ul>
          {[1, 2].map((n) => (
            <li key={n}>{n} GB</li>
          ))}
        </ul>,
      ),
    ).toBe("1\u00a0GB2\u00a0GB");
    expect(drawn(<input defaultValue="60 fps" />)).toBe("");
    expect(logged).not.toHaveBeenCalled();
  });
});
