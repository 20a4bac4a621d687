import { chromium } from '@playwright/test'
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] })
const page = await browser.newPage()
page.on('console', m => console.log(m.text()))
page.on('pageerror', m => console.log(m.message))
await page.addInitScript(() => {
  const connect = AudioNode.prototype.connect
  AudioNode.prototype.connect = function (to, ...rest) { 
    if (to instanceof AudioDestinationNode) { if(!window.an){window.an=[];} let e=window.an.find(x=>x.ctx===this.context); if(!e){ const a=this.context.createAnalyser(); a.fftSize=16384; a.smoothingTimeConstant=0; e={ctx:this.context,a}; window.an.push(e)}; connect.call(this,e.a)}
    return connect.call(this, to, ...rest) }
})
await page.goto('http://127.0.0.1:4555/desk'); await page.waitForSelector('html[data-ready]')
await page.getByRole('button',{name:'Hear'}).click()
for (let i=0;i<8;i++){ await page.waitForTimeout(300)
console.log(JSON.stringify(await page.evaluate(()=> (window.an??[]).map(e=>{ const t=new Float32Array(2048); e.a.getFloatTimeDomainData(t); const b=new Float32Array(e.a.frequencyBinCount); e.a.getFloatFrequencyData(b); return [e.ctx.state, e.ctx.currentTime, Math.max(...t), Math.max(...b)] })))) }
await browser.close()
