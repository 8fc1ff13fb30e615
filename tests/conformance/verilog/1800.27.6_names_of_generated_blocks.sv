// IEEE 1800-2017 clause 27.6: what stands in a numbered block is reached by its number
module t;
  for (genvar i = 0; i < 3; i++) begin : lane
    int n = i * 10;
  end
  initial $display("%0d %0d", lane[2].n, lane[1].n);
endmodule
//> 20 10
