// IEEE 1800-2017 clause 12.5: all items and the subject are as wide as the widest of them
module t;
  logic [2:0] a = 7; byte s = -1;
  initial begin
    case (a + 3'd1) 4'd8: $display("wide"); default: $display("cut"); endcase
    case (a + 3'd1) 3'd0: $display("cut"); default: $display("wide"); endcase
    case (s) 8'shff: $display("signed"); default: $display("unsigned"); endcase
    case (s) 16'hff: $display("unsigned"); 16'hffff: $display("signed"); default: $display("none"); endcase
  end
endmodule
//> wide
//> cut
//> signed
//> unsigned
