// IEEE 1800-2017 clause 25.8: seen through the port
interface bus #(parameter int W = 2);
  logic [W-1:0] d;
  modport take (input d);
endinterface
module m (bus.take b, output int n);
  assign n = b.W * 100 + $bits(b.d);
endmodule
module t;
  bus #(.W(5)) b ();
  int n;
  m u (b, n);
  initial begin
    b.d = 0;
    #1 $display("%0d", n);
  end
endmodule
//> 505
