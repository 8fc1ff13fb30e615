// berth ticket counter
module ticket_counter(input clk, input clr_n, input take,
                      output reg [3:0] ticket, output last);
  always @(negedge clk or negedge clr_n)
    if (!clr_n)
      ticket <= 0;
    else if (take) begin
      if (ticket == 12) ticket <= 0;
      else ticket <= ticket + 1;
    end
  assign last = ticket == 11;
endmodule
