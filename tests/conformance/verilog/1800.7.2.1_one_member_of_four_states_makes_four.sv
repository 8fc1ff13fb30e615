// IEEE 1800-2017 clause 7.2.1: members of two states are converted when they are read and written
module t;
  struct packed { bit [1:0] two; logic [1:0] four; } m;
  struct packed { bit [1:0] a; int b; } all_two;
  initial begin
    $display("%b %b", m.two, m.four);
    $display("%0d", all_two);
    m = 4'bx1x1;
    $display("%b %b", m.two, m.four);
    m.two = 2'bz1;
    $display("%b", m.two);
  end
endmodule
//> 00 xx
//> 0
//> 01 x1
//> 01
