// IEEE 1364-2005 clause 3.7: Verilog is case sensitive
module t;
  reg a, A;
  initial begin
    a = 0; A = 1;
    $display("%b%b", a, A);
  end
endmodule
//> 01
