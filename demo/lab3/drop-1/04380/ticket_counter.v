// berth ticket counter
module ticket_counter(input clk, input clr_n, input take,
                      output reg [3:0] ticket, output last);
  always @(negedge clk or posedge clr_n)
    if (clr_n)
      ticket <= 4'd0;
    else if (take) begin
      if (ticket == 11) ticket <= 4'd0;
      else ticket <= ticket + 4'd1;
    end
  assign last = ticket == 11;
endmodule
