// IEEE 1800-2017 clause 9.2.2.2.1: woken by the members and elements that it reads
module t;
  struct packed { logic a; logic b; } s;
  logic [1:0] m [2];
  int n = 0;
  logic y;
  always_comb begin
    y = s.a ^ m[1][0];
    n++;
  end
  initial begin
    s = 0;
    m = '{0, 0};
    #1 n = 0;
    s.b = 1;
    #1 $display("%0d %b", n, y);
    s.a = 1;
    #1 $display("%0d %b", n, y);
    m[1] = 1;
    #1 $display("%0d %b", n, y);
  end
endmodule
//> 0 0
//> 1 1
//> 2 0
