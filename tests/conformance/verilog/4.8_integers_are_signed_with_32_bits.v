// IEEE 1364-2005 clause 4.8: integer arithmetic wraps around in two's complement
module t;
  integer i;
  initial begin
    i = 32'h7fff_ffff;
    i = i + 1;
    $display("%0d", i);
  end
endmodule
//> -2147483648
