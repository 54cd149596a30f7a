import math
# Five flowers of eight petals each, one inside the other: the doodle sheet of the demo.
out=['<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="90mm" viewBox="0 0 120 90">',
' <g id="ink" fill="none" stroke="#22282c" stroke-width="0.4">']
def flower(cx,cy,r,n,turn):
    a=[]
    for k in range(n):
        t=turn+2*math.pi*k/n; w=math.pi/n*0.86
        p=lambda rad,ang:(cx+rad*math.cos(ang),cy+rad*math.sin(ang))
        b=p(r*0.30,t); tip=p(r,t); l1=p(r*0.55,t-w*1.25); l2=p(r*0.95,t-w*0.75); r1=p(r*0.95,t+w*0.75); r2=p(r*0.55,t+w*1.25)
        a.append('M%.2f %.2fC%.2f %.2f %.2f %.2f %.2f %.2fC%.2f %.2f %.2f %.2f %.2f %.2fZ'%(*b,*l1,*l2,*tip,*r1,*r2,*b))
    return a
for (cx,cy,r,n,t) in [(34,34,26,8,0.2),(84,30,20,7,0.5),(92,68,16,6,0.1),(58,66,17,7,0.9),(20,74,12,6,0.3)]:
    for d in flower(cx,cy,r,n,t): out.append('  <path d="%s"/>'%d)
    out.append('  <circle cx="%g" cy="%g" r="%g"/>'%(cx,cy,r*0.2))
out+=[' </g>','</svg>']
open('petals.svg','w').write('\n'.join(out)+'\n')
