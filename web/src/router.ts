import { createRouter, createWebHistory } from "vue-router";
import ShelfView from "@/views/ShelfView.vue";
import WorkspaceView from "@/views/WorkspaceView.vue";

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: "/", name: "shelf", component: ShelfView },
    { path: "/principles", name: "principles", component: () => import("@/views/PrinciplesView.vue") },
    { path: "/scenes/:id", name: "workspace", component: WorkspaceView, props: true },
    { path: "/:rest(.*)*", redirect: "/" },
  ],
});
