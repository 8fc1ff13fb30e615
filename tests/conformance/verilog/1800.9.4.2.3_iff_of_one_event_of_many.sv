// IEEE 1800-2017 clause 9.4.2.3: each event has a condition of its own
module t;
  logic c = 0, en = 0, rst = 1; int q = 7, n = 0, m = 0;
  always_ff @(posedge c iff en or negedge rst) if (!rst) q <= 0; else q <= q + 1;
  initial forever begin @(posedge c iff en == 0, negedge c iff en) n++; end
  always @(posedge c iff q == 2, posedge c iff en) m++;
  task tick; #1 c = 1; #1 c = 0; endtask
  initial begin
    tick; $display("%0d %0d %0d", q, n, m);
    rst = 0; #1 $display("%0d", q);
    rst = 1; tick; $display("%0d %0d %0d", q, n, m);
    en = 1; tick; tick; $display("%0d %0d %0d", q, n, m);
    en = 0; tick; $display("%0d %0d %0d", q, n, m);
  end
endmodule
//> 7 1 0
//> 0
//> 0 2 0
//> 2 4 2
//> 2 5 3
