package main
import ("testing";"os";"strings";"fmt"; "path/filepath";"oarweed/catalogue";"oarweed/core/shape/space";"oarweed/core/snug")
func TestZZ(t *testing.T){
 c,err:=catalogue.Load(); if err!=nil {t.Fatal(err)}
 files,_:=filepath.Glob("/tmp/starts/"+os.Getenv("IDS")+"*.space")
 for _,file:=range files {
  text,_:=os.ReadFile(file)
  name:=strings.TrimSuffix(filepath.Base(file),".space")
  m,err:=space.Parse(string(text)); if err!=nil {fmt.Println(name,err);continue}
  sh,_:=c.Drawing(m.ID)
  var d int
  if err:=m.Matches(sh);err!=nil { d=strings.Count(err.Error(),"in its second drawing") ; if os.Getenv("SAY")!="" {fmt.Println(err)}}
  looks:=[]string{}
  if d==0 { for _,x:=range []string{""," mirrored"} { for _,y:=range []string{""," reversed"} { for _,z:=range []string{""," across"} {
   mm,_:=space.Parse(strings.Replace(string(text),"\nspace "+m.ID,"\nspace "+m.ID+"\nseen"+z+y+x,1)); if mm.Matches(sh)==nil {looks=append(looks,"["+z+y+x+"]")}
  }}}}
  fmt.Print(looks," ")
  _,err=snug.Tighten(snug.Laid(m),snug.Preset{Momentum:0.9,Tau:0.5,Mu:0.2,Settled:1,Patience:0})
  if err!=nil && !strings.Contains(err.Error(),"overlap"){err=nil}
  fmt.Println(name,"wrong:",d,err)
 }
}
