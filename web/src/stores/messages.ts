/** What the page says to the person: short messages that come and go, kept apart from who shows them. */
import { ElMessage } from "element-plus";
import "element-plus/es/components/message/style/css";
import { defineStore } from "pinia";
import { h } from "vue";
import { ServiceError, STOPPED } from "@/api/client";

export const useMessages = defineStore("messages", () => {
  const show = (message: string, type: "info" | "warning" | "error" | "success", duration: number) =>
    ElMessage({ message, type, duration, showClose: true, grouping: true, offset: 56 });

  const error = (message: string) => show(message, "error", 0);

  return {
    info: (message: string) => show(message, "success", 3500),
    warn: (message: string) => show(message, "warning", 8000),
    /** Errors stay until they are closed: they say what to do. */
    error,
    /** Do what the service may refuse; null, and what it says is shown, where it does. */
    async attempt<T>(work: () => Promise<T>): Promise<T | null> {
      try {
        return await work();
      } catch (refusal) {
        if (!(refusal instanceof ServiceError)) throw refusal;
        if (refusal.status === STOPPED) show(refusal.message, "success", 3500);
        else error(refusal.message);
        return null;
      }
    },
    /** A message with an undo button. */
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
