// IEEE 1800-2017 clause 12.4: a condition that is x or z takes the branch of `else`
module t;
  logic a;
  logic [1:0] b = 2'bz1;
  initial begin
    if (a) $display("then"); else $display("else");
    if (!a) $display("then"); else $display("else");
    if (b) $display("then"); else $display("else");
  end
endmodule
//> else
//> else
//> then
