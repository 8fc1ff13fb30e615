// IEEE 1800-2017 clause 27.5: first and last stage are other ones
module t;
  localparam int N = 4;
  logic [N-1:0] a = 4'b0110, up;
  for (genvar i = 0; i < N; i++) begin : g
    if (i == 0) begin : first
      assign up[i] = a[i];
    end else if (i == N - 1) begin : last
      assign up[i] = ~up[i-1];
    end else begin : middle
      assign up[i] = up[i-1] | a[i];
    end
  end
  initial #1 $display("%b", up);
endmodule
//> 0110
