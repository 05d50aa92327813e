/**
 * What nearly every sheet says, so that its code need not: a preset dictionary of RFC 1950, the likeliest last. **Never
 * changed**: codes that hang at benches are read with it. Another one would be another edition.
 */
export const USUAL_WORDS = Buffer.from(
  [
    '"stencilSheet""transferFilm""foldingCarton""cardstock""printableVinyl""plainVinyl""stickerPaper""otherSheet"',
    'gloss matt clear satin white holographic "colours":[{"name":"","hex":"#","darkness":0.,"forcePercent":0},',
    '"heat":{"temperatureC":1,"seconds":1,"note":""},"fibre":"long","short","mirrored":true,"printSide":"top","either",',
    '"printMethods":["ink","toner"],"cautions":["wear gloves","ventilate"],"neverFor":["laser: it gives off chlorine"],',
    '"sealed""laminated""printed""bare",{"role":"laminate","caliperUm":50,"isMeasured":false},{"role":"ink","caliperUm":5,',
    '{"role":"body","caliperUm":250,"isMeasured":false}]{"role":"liner","caliperUm":70,"isMeasured":false}],"coverage":null}',
    '{"kind":"bare","stack":[{"role":"face","caliperUm":100,"isMeasured":true},{"role":"adhesive","caliperUm":20,"isMeasured":',
    '"details":{"product":"","nicknames":[],"printMethods":[],"printSide":"none","isMirrored":false,"heat":null,"adhesive":"",',
    '"fibre":"unknown","lots":[],"colours":[],"stock":{"unit":"sheet","price":null,"currency":"EUR","onHand":null},',
    '"remnants":[],"neverFor":[],"note":""},"conditions":[',
    '{"format":"pale-feather-sheet","version":1,"material":{"name":"","maker":"","family":"","finish":"","colourName":"",',
    '"colourHex":"#ffffff","darkness":0,"cautions":[],',
    '"machines":[{"name":"","kind":"flatbed""rollFed""matFed","scale":{"kind":"gramForce","min":10,"max":500,"step":5},',
    '{"kind":"level","min":1,"max":33,"step":1},"isGuessed":true}]"isGuessed":false}],"settings":[',
    '"strategy":"severalLight""kissRepeats""oneHeavy","tabWay":"ownForce""lifted""kissForce","tabForce":,"cutLengthMm":2.5,',
    '"tabLengthMm":0.5,"cornerClearanceMm":1,"tabGf":,"depthShare":0.5,',
    '"reason":"weeds well""carried from""found with test cuts""trust":"doubted""predicted""tried""proven",',
    '"operation":"score","crease","perforated","through","blade":"45° standard""60° deep""45° fine",',
    '{"state":"bare","machine":0,"blade":"45° fine","operation":"kiss","values":{"force":80,"exposureMm":0.1,"speed":10,',
    '"passes":1,"offsetMm":0.25,"overcutMm":0.1,"liftMm":,"gf":80,"mmPerS":100,"trust":"proven","reason":""}',
  ].join(''),
);
