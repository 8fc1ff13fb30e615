// IEEE 1800-2017 clause 27.6: a name may stand before `begin` as well
module t;
  logic [1:0] y;
  for (genvar i = 0; i < 2; i++) g : begin
    logic z = 1;
    assign y[i] = z;
  end : g
  initial lab : begin
    #1 $display("%b %b %m", y, g[0].z);
  end : lab
endmodule : t
//> 11 1 t.lab
