// IEEE 1800-2017 clause 8.10: a method is called on what another one gave
module t;
  typedef enum logic [1:0] {IDLE, RUN, STOP} st;
  st l;
  string s;
  initial begin
    l = RUN; s = "hello";
    $display("%s %s", l.next().name(), l.next(2).name);
    $display("%s %0d", s.substr(0, 1).toupper(), s.substr(1, 3).len());
    $display("%0d %0d", l.next().next() == IDLE, s.toupper().getc(0));
  end
endmodule
//> STOP IDLE
//> HE 3
//> 1 72
