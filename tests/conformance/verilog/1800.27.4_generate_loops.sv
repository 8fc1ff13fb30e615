// IEEE 1800-2017 clause 27.4: a generate loop counts with a name of its own, and its blocks are numbered
module t;
  logic [3:0] g = 4'b1011, b;
  for (genvar i = 0; i < 4; i++) begin : stage
    if (i == 3) assign b[i] = g[i];
    else assign b[i] = b[i + 1] ^ g[i];
  end
  initial #1 $display("%b", b);
endmodule
//> 1101
