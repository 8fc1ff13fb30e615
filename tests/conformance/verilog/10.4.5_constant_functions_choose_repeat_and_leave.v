// IEEE 1364-2005 clause 10.4.5: what a constant function may do
module m;
  function integer steps(input integer n);
    begin : count
      steps = 0;
      repeat (20) begin
        if (n == 1) disable count;
        case (n % 2)
          0: n = n / 2;
          default: n = 3 * n + 1;
        endcase
        steps = steps + 1;
      end
    end
  endfunction
  localparam S = steps(6);
  reg [S-1:0] r;
  initial begin r = -1; $display("%0d %0d", S, r); end
endmodule
//> 8 255
