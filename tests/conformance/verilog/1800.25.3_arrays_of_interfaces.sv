// IEEE 1800-2017 clause 25.3: instances by their index
interface bit_of;
  logic v;
endinterface
module drive #(parameter logic V = 0) (bit_of b);
  assign b.v = V;
endmodule
module t;
  bit_of b [2] ();
  drive #(.V(1)) u (b[0]);
  drive #(.V(0)) w (b[1]);
  initial #1 $display("%b%b", b[0].v, b[1].v);
endmodule
//> 10
