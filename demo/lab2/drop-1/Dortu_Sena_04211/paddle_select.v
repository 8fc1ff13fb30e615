`timescale 1ns / 1ps
module paddle_select (input raise, level_hi, gate_shut, boat_in, output upper, lower);
  wire g, r, l;
  nor #(2, 3) n1 (g, gate_shut), n2 (r, raise), n3 (l, level_hi);
  nor #(2, 3) n4 (upper, g, r, level_hi), n5 (lower, g, raise, l, boat_in);
endmodule

module tb;                       // my bench
  reg [3:0] in; wire up, lo; integer i;
  paddle_select dut (in[3], in[2], in[1], in[0], up, lo);
  initial begin
    for (i = 0; i < 16; i = i + 1) begin
      in = i; #20 $display("%b -> %b %b", in, up, lo);
    end
    $finish;
  end
endmodule
