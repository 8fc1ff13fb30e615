// IEEE 1800-2017 clause 7.9: `first`, `next`, `last` and `prev` give the keys in order
module t;
  logic [7:0] m[int];
  int k;
  initial begin
    m[30] = 8'h1e;
    m[-5] = 8'hfb;
    m[7] = 8'h07;
    if (m.first(k)) do $display("%0d %h", k, m[k]); while (m.next(k));
    $display("%0d", k);
    if (m.last(k) && m.prev(k)) $display("%0d", k);
    k = 100;
    if (!m.next(k)) $display("none %0d", k);
  end
endmodule
//> -5 fb
//> 7 07
//> 30 1e
//> 30
//> 7
//> none 100
