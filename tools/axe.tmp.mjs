import { chromium } from '@playwright/test'; import pkg from '@axe-core/playwright'; const AxeBuilder = pkg.default ?? pkg;
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const c = await b.newContext({ viewport: { width: 390, height: 844 } }); const p = await c.newPage();
for (const u of process.argv.slice(2)) { await p.goto('http://localhost:4711' + u); await p.waitForTimeout(2000); const { violations } = await new AxeBuilder({ page: p }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']).analyze(); console.log(u); for (const v of violations) console.log('  ', v.id, v.nodes.length, v.nodes[0].html.slice(0, 250), v.nodes[0].failureSummary.slice(0, 250)); }
await b.close();
