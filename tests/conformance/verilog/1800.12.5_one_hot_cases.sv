// IEEE 1800-2017 clause 12.5: `case (1'b1)` takes the first item that is true
module t;
  logic [3:0] r; logic [1:0] y; logic v;
  always_comb begin
    v = 1;
    case (1'b1)
      r[3]: y = 3; r[2]: y = 2; r[1]: y = 1; r[0]: y = 0;
      default: begin y = 'x; v = 0; end
    endcase
  end
  initial begin
    r = 4'b0110; #1 $display("%0d%b", y, v);
    r = 4'b1111; #1 $display("%0d%b", y, v);
    r = 4'b0000; #1 $display("%b%b", y, v);
    r = 4'bx001; #1 $display("%0d%b", y, v);
  end
endmodule
//> 21
//> 31
//> xx0
//> 01
