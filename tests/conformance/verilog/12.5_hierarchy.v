// IEEE 1364-2005 clause 12.5, 12.7: names with a path, downwards, upwards and into blocks and tasks
module inner(input a); reg v = 1; integer n;
  initial begin : blk integer k; k = 42; #1 n = top.shared; t.up(n); end
  task hello(input integer x); $display("%m %0d", x); endtask
endmodule
module t;
  reg [3:0] shared = 7; wire w = dut.v; reg a = 0;
  inner dut(a);
  task up(input integer x); $display("up %0d", x); endtask
  initial begin : main
    reg local_; local_ = 1;
    #2 $display("%0d %b %0d %b", dut.n, w, dut.blk.k, t.main.local_);
    dut.v = 0; #1 $display("%b", w); dut.hello(3);
    $display("%0d", top.shared);
  end
endmodule
module top; integer shared = 99; endmodule
//> up 99
//> 99 1 42 1
//> 0
//> t.dut.hello 3
//> 99
