/** Which address shows which view. */
import { createRouter, createWebHistory } from "vue-router";

const workspace = () => import("@/views/WorkspaceView.vue");

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: "/", name: "shelf", component: () => import("@/views/ShelfView.vue") },
    { path: "/principles", name: "principles", component: () => import("@/views/PrinciplesView.vue") },
    { path: "/notes", name: "notes", component: () => import("@/views/NotesView.vue") },
    { path: "/help/:page?", name: "help", component: () => import("@/views/HelpView.vue"), props: true },
    { path: "/scenes/:id", name: "workspace", component: workspace, props: true },
    { path: "/:rest(.*)*", redirect: "/" },
  ],
});

/**
 * The workspace is by far the largest part of the page: it is fetched while the Shelf is looked at, so that a scene
 * opens at once.
 */
router.afterEach((to) => {
  // A failure is reported when the scene is opened, by the same import.
  if (to.name !== "workspace") window.setTimeout(() => workspace().catch(() => undefined), 400);
});
