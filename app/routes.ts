import { index, layout, type RouteConfig, route } from "@react-router/dev/routes";

export default [
  route("sign-in", "screens/sign-in/route.tsx"),
  route("sign-out", "screens/sign-in/sign-out.ts"),
  route("display", "screens/frame/display.ts"),
  route("live", "screens/frame/live.ts"),
  route("themes/:theme/draft", "screens/workbench/draft.ts"),
  route("themes/:theme/waivers", "screens/workbench/waivers.ts"),
  layout("screens/frame/route.tsx", [
    index("screens/frame/start.ts"),
    route("themes", "screens/themes/route.tsx"),
    route("themes/new", "screens/new-theme/route.tsx"),
    route("themes/:theme", "screens/workbench/route.tsx"),
    route("themes/:theme/versions", "screens/versions/route.tsx"),
    route("themes/:theme/release", "screens/release/route.tsx"),
    route("estate", "screens/estate/route.tsx"),
    route("estate/:place", "screens/place/route.tsx"),
    route("estate/:place/deliver", "screens/deliver/route.tsx"),
    route("policy", "screens/policy/route.tsx"),
    route("log", "screens/log/route.tsx"),
    route("*", "screens/frame/not-found.tsx"),
  ]),
] satisfies RouteConfig;
