// IEEE 1800-2017 clause 12.5.1: `casez` takes z and ? for anything, `casex` x too
module t;
  logic [3:0] a = 4'b1x01;
  initial begin
    casez (a) 4'b1?01: $display("z"); default: $display("no"); endcase
    casex (a) 4'b1101: $display("x"); default: $display("no"); endcase
    casez (a) 4'b1101: $display("no"); default: $display("default"); endcase
  end
endmodule
//> z
//> x
//> default
