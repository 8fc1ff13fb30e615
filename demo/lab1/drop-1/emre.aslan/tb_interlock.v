`timescale 1ns/1ps
module tb;
  reg l, g, b, k; wire o, a; integer i;
  lock_interlock dut(l, g, b, k, o, a);
  initial begin
    for (i = 0; i < 16; i = i + 1) begin
      {l, g, b, k} = i; #10;
      $display("%b%b%b%b -> %b %b", l, g, b, k, o, a);
    end
    $finish;
  end
endmodule
