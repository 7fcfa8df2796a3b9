/** What the page says to the person: short messages that come and go, kept apart from who shows them. */
import { ElMessage } from "element-plus";
import "element-plus/es/components/message/style/css";
import { defineStore } from "pinia";
import { h } from "vue";

export const useSaid = defineStore("said", () => {
  const show = (message: string, type: "info" | "warning" | "error" | "success", duration: number) =>
    ElMessage({ message, type, duration, showClose: true, grouping: true, offset: 56 });

  return {
    info: (message: string) => show(message, "success", 3500),
    warn: (message: string) => show(message, "warning", 8000),
    /** Errors stay until they are closed: they say what to do. */
    error: (message: string) => show(message, "error", 0),
    /** A message with a button that takes back what it tells of. */
    withUndo(message: string, label: string, undo: () => void): void {
      const shown = ElMessage({
        type: "success",
        duration: 10000,
        showClose: true,
        offset: 56,
        message: h("span", [
          message,
          " ",
          h("button", { class: "said-undo", onClick: () => (shown.close(), undo()) }, label),
        ]),
      });
    },
  };
});
